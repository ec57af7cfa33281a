export { TextSettings as default } from '@/features/settings/text-settings';
