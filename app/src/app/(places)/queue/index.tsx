export { DrawnByFrame as default } from '@/features/shell/place-frame';
