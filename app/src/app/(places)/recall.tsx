export { RecallScreen as default } from '@/features/cards/from-memory-screen';
