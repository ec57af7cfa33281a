export { AccountScreen as default } from '@/features/account/account-screen';
