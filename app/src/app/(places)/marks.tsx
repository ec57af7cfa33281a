import { useLocalSearchParams } from 'expo-router';
import { MarksScreen } from '@/features/highlights/marks-screen';

export default function Marks() {
  const { item } = useLocalSearchParams<{ item?: string }>();
  return <MarksScreen itemId={item ?? null} />;
}
