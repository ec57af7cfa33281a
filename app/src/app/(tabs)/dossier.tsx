import { useLocalSearchParams } from 'expo-router';
import { later } from '@/features/shell/later';

const DossierScreen = later('DossierScreen');

export default function DossierRoute() {
  const { dossier } = useLocalSearchParams<{ dossier?: string }>();
  return <DossierScreen dossierId={dossier ?? ''} />;
}
