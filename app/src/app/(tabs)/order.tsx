export { OrderScreen as default } from '@/features/sort/order-screen';
