import { Text } from 'react-native';
import { Page } from '@/ui/page';
import { HowMuchChoice, OF_A_PAGE } from './how-much-choice';
import { useSavingSettings } from './saving-settings-store';

/** What is kept of a page unless a save says otherwise. */
export function SavingSettings() {
  const { howMuch, keep } = useSavingSettings();
  return (
    <Page title="Save pages as">
      <HowMuchChoice value={howMuch} onChange={keep} of={OF_A_PAGE} />
      <Text className="font-ui text-small text-soft">Each save can ask for something else.</Text>
    </Page>
  );
}
