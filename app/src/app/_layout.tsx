import '../../global.css';
import { Slot } from 'expo-router';
import { useEffect } from 'react';
import { registerServiceWorker } from '@/device/cache/register-service-worker';
import { startSyncLoop } from '@/device/sync/sync-loop';
import { useTheme } from '@/features/settings/theme';
import { Boundary } from '@/ui/boundary';

export default function RootLayout() {
  useTheme();
  useEffect(() => {
    registerServiceWorker();
    return startSyncLoop();
  }, []);
  return (
    <Boundary what="This screen">
      <Slot />
    </Boundary>
  );
}
