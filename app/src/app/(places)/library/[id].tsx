import { useLocalSearchParams } from 'expo-router';
import { ReaderScreen } from '@/features/reader/reader-screen';

export default function Open() {
  const { id, at } = useLocalSearchParams<{ id: string; at?: string }>();
  return <ReaderScreen key={`${id} ${at ?? ''}`} place="library" itemId={id} at={at} />;
}
