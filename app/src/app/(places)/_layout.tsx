import { Redirect, Slot, useSegments } from 'expo-router';
import { useAccount } from '@/device/account';
import { Shell } from '@/features/shell/shell';

export default function PlacesLayout() {
  const account = useAccount((state) => state.account);
  const segments = useSegments();
  if (!account) return <Redirect href="/sign-in" />;
  return (
    <Shell immersed={(segments as string[]).includes('[id]')}>
      <Slot />
    </Shell>
  );
}
