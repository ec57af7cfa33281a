import { SortScreen } from '@/features/sort/sort-screen';

export default function Sort() {
  return <SortScreen />;
}
