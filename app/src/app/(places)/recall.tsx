export { RecallScreen as default } from '@/features/cards/recall-screen';
