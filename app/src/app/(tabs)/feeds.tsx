import { FeedsScreen } from '@/features/feeds/feeds-screen';

export default function Feeds() {
  return <FeedsScreen />;
}
