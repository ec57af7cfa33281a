import { PaceSetting } from '@/features/settings/pace-setting';
import { Silenced } from '@/features/settings/silenced';
import { Page } from '@/ui/page';

export default function PaceAndSilenced() {
  return (
    <Page title="Pace and silenced words">
      <PaceSetting />
      <Silenced />
    </Page>
  );
}
