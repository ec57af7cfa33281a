import { OnYourPhone } from '@/features/first-steps/on-your-phone';
import { DeviceSpace } from '@/features/settings/device-space';
import { LetterKeys } from '@/features/settings/letter-keys';
import { NotTaken } from '@/features/settings/not-taken';
import { Page } from '@/ui/page';

export default function OnThisDevice() {
  return (
    <Page title="On this device">
      <NotTaken />
      <DeviceSpace />
      <OnYourPhone />
      <LetterKeys />
    </Page>
  );
}
