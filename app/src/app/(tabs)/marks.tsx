import { useLocalSearchParams } from 'expo-router';
import { HighlightsScreen } from '@/features/highlights/highlights-screen';

export default function Marks() {
  const { item } = useLocalSearchParams<{ item?: string }>();
  return <HighlightsScreen itemId={item ?? null} />;
}
