import { PlaceStart } from '@/features/shell/place-frame';

export default function Start() {
  return <PlaceStart place="inbox" />;
}
