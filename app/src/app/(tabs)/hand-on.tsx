import { useLocalSearchParams } from 'expo-router';
import { HandOnScreen } from '@/features/dossiers/hand-on-screen';

export default function HandOnRoute() {
  const { dossier } = useLocalSearchParams<{ dossier?: string }>();
  return <HandOnScreen dossierId={dossier ?? ''} />;
}
