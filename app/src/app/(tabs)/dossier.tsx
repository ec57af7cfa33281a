import { Redirect, useLocalSearchParams } from 'expo-router';

/** Where a dossier stood before it had an address of its own: podcasts and bookmarks still lead there. */
export default function DossierRoute() {
  const { dossier } = useLocalSearchParams<{ dossier?: string }>();
  return <Redirect href={dossier ? `/dossiers/${dossier}` : '/dossiers'} />;
}
