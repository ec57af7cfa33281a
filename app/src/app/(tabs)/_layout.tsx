import { Redirect, Slot, useGlobalSearchParams } from 'expo-router';
import { useAccount } from '@/device/store/account';
import { Shell } from '@/features/shell/shell';

export default function TabsLayout() {
  const account = useAccount((state) => state.account);
  const { id } = useGlobalSearchParams<{ id?: string }>();
  if (!account) return <Redirect href="/sign-in" />;
  return (
    <Shell openId={id ?? null}>
      <Slot />
    </Shell>
  );
}
