import { useLocalSearchParams } from 'expo-router';
import { ListScreen } from '@/features/library/list-screen';
import { NothingOpen } from '@/features/reader/nothing-open';
import { isListPlace } from '@/features/shell/places';
import { useWide } from '@/ui/wide';

export default function PlaceIndex() {
  const { place } = useLocalSearchParams<{ place: string }>();
  const wide = useWide();
  if (!isListPlace(place)) return null;
  return wide ? <NothingOpen /> : <ListScreen key={place} place={place} openId={null} />;
}
