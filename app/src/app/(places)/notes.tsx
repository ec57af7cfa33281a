import { useLocalSearchParams } from 'expo-router';
import { NotesScreen } from '@/features/notes/notes-screen';

export default function Notes() {
  const { item } = useLocalSearchParams<{ item?: string }>();
  return <NotesScreen itemId={item ?? null} />;
}
