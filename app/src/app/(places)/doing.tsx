export { DoingScreen as default } from '@/features/doing/doing-screen';
