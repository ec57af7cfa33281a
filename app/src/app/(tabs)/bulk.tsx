export { BulkScreen as default } from '@/features/sort/bulk-screen';
