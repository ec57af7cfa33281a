export { WorkOverScreen as default } from '@/features/work-over/work-over-screen';
