import { YouFrame } from '@/features/you/you-frame';

export default function Layout() {
  return <YouFrame first="/you/text" />;
}
