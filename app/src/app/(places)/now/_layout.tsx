import { PlaceFrame } from '@/features/shell/place-frame';

export default function Layout() {
  return <PlaceFrame place="now" />;
}
