export { ListSettings as default } from '@/features/settings/list-settings';
