import { useLocalSearchParams } from 'expo-router';
import { ReaderScreen } from '@/features/reader/reader-screen';

export default function Open() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ReaderScreen key={id} place="now" itemId={id} />;
}
