export { SignInScreen as default } from '@/features/account/sign-in-screen';
