export { GatheredScreen as default } from '@/features/highlights/gathered-screen';
