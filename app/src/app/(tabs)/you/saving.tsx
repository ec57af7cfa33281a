export { SavingSettings as default } from '@/features/settings/saving-settings';
