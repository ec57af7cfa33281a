import { useLocalSearchParams } from 'expo-router';
import { later } from '@/features/shell/later';

const HandOnScreen = later('HandOnScreen');

export default function HandOnRoute() {
  const { dossier } = useLocalSearchParams<{ dossier?: string }>();
  return <HandOnScreen dossierId={dossier ?? ''} />;
}
