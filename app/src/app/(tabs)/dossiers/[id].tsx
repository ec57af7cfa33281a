export { DrawnByFrame as default } from '@/features/shell/tab-frame';
