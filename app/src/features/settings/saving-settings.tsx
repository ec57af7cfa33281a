import { Text } from 'react-native';
import { useNotices } from '@/ui/notices';
import { Page } from '@/ui/page';
import { Switch } from '@/ui/setting';
import { HowMuchChoice, OF_A_PAGE } from './how-much-choice';
import { useSavingSettings } from './saving-settings-store';
import { whereItIs } from './where-saved';

/** What is kept of a page unless a save says otherwise. */
export function SavingSettings() {
  const { howMuch, where, change } = useSavingSettings();
  const show = useNotices(({ show: tell }) => tell);
  const keepPlaces = async (on: boolean) => {
    change({ where: on });
    // Asked now, while the reader knows why: the browser asks them whether it may tell.
    if (!on || (await whereItIs())) return;
    change({ where: false });
    show({
      text: 'This browser does not tell where it is. Allow it for this site in the browser’s settings, and try again.',
    });
  };
  return (
    <Page title="Save pages as">
      <HowMuchChoice value={howMuch} onChange={(value) => change({ howMuch: value })} of={OF_A_PAGE} />
      <Text className="font-ui text-small text-soft">Each save can ask for something else.</Text>
      <Switch
        label="With the place"
        about="Where you are is kept with what you save on this device, in your library alone. “What else is near there”, at an item, finds the rest."
        on={where}
        onChange={(on) => void keepPlaces(on)}
      />
    </Page>
  );
}
