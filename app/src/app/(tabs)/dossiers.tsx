export { DossiersScreen as default } from '@/features/dossiers/dossiers-screen';
