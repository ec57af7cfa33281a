import { useLocalSearchParams } from 'expo-router';
import { DossierScreen } from '@/features/dossiers/dossier-screen';

export default function DossierRoute() {
  const { dossier } = useLocalSearchParams<{ dossier?: string }>();
  return <DossierScreen dossierId={dossier ?? ''} />;
}
