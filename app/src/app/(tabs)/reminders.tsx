export { RemindersScreen as default } from '@/features/reminders/reminders-screen';
