import { ShareScreen } from '@/features/add/share-screen';

export default function Share() {
  return <ShareScreen />;
}
