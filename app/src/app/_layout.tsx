import '../../global.css';
import { Slot } from 'expo-router';
import { useEffect } from 'react';
import { registerServiceWorker } from '@/device/cache/register-service-worker';
import { followInstall } from '@/device/install';
import { startSyncLoop } from '@/device/sync/sync-loop';
import { useLetterKeysSetting } from '@/features/settings/letter-keys';
import { useTheme } from '@/features/settings/theme';
import { Boundary } from '@/ui/boundary';
import { bringFonts } from '@/ui/fonts';
import { useSpaceTurns } from '@/ui/keys';

bringFonts();

export default function RootLayout() {
  useTheme();
  useLetterKeysSetting();
  useSpaceTurns();
  useEffect(() => {
    registerServiceWorker();
    const ends = [followInstall(), startSyncLoop()];
    return () => ends.forEach((end) => end());
  }, []);
  return (
    <Boundary what="This screen">
      <Slot />
    </Boundary>
  );
}
