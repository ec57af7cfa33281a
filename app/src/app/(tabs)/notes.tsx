import { useLocalSearchParams } from 'expo-router';
import { later } from '@/features/shell/later';

const NotesScreen = later('NotesScreen');

export default function Notes() {
  const { item, words } = useLocalSearchParams<{ item?: string; words?: string }>();
  return <NotesScreen key={words} itemId={item ?? null} sought={words ?? ''} />;
}
