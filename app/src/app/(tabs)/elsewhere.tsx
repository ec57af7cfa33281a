import { ElsewhereScreen } from '@/features/elsewhere/elsewhere-screen';

export default function Elsewhere() {
  return <ElsewhereScreen />;
}
