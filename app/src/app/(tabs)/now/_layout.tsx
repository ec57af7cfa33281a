import { TabFrame } from '@/features/shell/tab-frame';

export default function Layout() {
  return <TabFrame tab="now" />;
}
