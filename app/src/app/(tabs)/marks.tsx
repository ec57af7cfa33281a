import { useLocalSearchParams } from 'expo-router';
import { later } from '@/features/shell/later';

const HighlightsScreen = later('HighlightsScreen');

export default function Marks() {
  const { item } = useLocalSearchParams<{ item?: string }>();
  return <HighlightsScreen itemId={item ?? null} />;
}
