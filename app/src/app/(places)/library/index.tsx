export { PlaceStart as default } from '@/features/shell/place-frame';
