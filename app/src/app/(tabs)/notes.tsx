import { useLocalSearchParams } from 'expo-router';
import { NotesScreen } from '@/features/notes/notes-screen';

export default function Notes() {
  const { item, words } = useLocalSearchParams<{ item?: string; words?: string }>();
  return <NotesScreen key={words} itemId={item ?? null} sought={words ?? ''} />;
}
