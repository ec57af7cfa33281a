export { CardsScreen as default } from '@/features/cards/cards-screen';
