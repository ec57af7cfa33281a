import { Redirect, Slot, usePathname } from 'expo-router';
import { useAccount } from '@/device/store/account';
import { Shell } from '@/features/shell/shell';
import { openIdIn } from '@/navigation/tabs';

export default function TabsLayout() {
  const account = useAccount((state) => state.account);
  // Not by the router's parameters: where a text was opened from another place, they still name it when it is closed.
  const openId = openIdIn(usePathname());
  if (!account) return <Redirect href="/sign-in" />;
  return (
    <Shell openId={openId}>
      <Slot />
    </Shell>
  );
}
