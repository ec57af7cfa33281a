import { useLocalSearchParams } from 'expo-router';
import { ReaderScreen } from '@/features/reader/reader-screen';
import { isListPlace } from '@/features/shell/places';

export default function PlaceItem() {
  const { place, id } = useLocalSearchParams<{ place: string; id: string }>();
  return isListPlace(place) ? <ReaderScreen key={id} place={place} itemId={id} /> : null;
}
