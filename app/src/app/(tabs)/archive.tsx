export { ArchiveScreen as default } from '@/features/archive/archive-screen';
