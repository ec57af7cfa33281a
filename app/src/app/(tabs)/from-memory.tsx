export { FromMemoryScreen as default } from '@/features/cards/from-memory-screen';
