import { useRouter } from 'expo-router';
import { ScrollView, Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { ScreenHeader } from '@/ui/screen-header';
import { SectionHeading } from '@/ui/section-heading';
import { AccountSettings } from './account-settings';
import { DeviceSpace } from './device-space';
import { HowMuchChoice, OF_A_PAGE } from './how-much-choice';
import { NotTaken } from './not-taken';
import { PaceSetting } from './pace-setting';
import { ReadingControls } from './reading-controls';
import { readingStyle, useReadingSettings } from './reading-settings-store';
import { useSavingSettings } from './saving-settings-store';
import { Silenced } from './silenced';

const SAMPLE =
  'By the third summer the divers had stopped counting shoots and begun to count sounds. A meadow in health is loud: shrimp crackle in it like frying fat, wrasse grunt at one another, and the blades themselves tick as they let go of oxygen at noon.';

/** How reading looks, what is on this device, and whose library it is. */
export function SettingsScreen() {
  const settings = useReadingSettings();
  const router = useRouter();
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[720px] gap-[26px] px-[20px] pb-[40px]"
    >
      <ScreenHeader title="You" aside="for this device" />
      <NotTaken />
      <View role="region" aria-label="Sample" className="rounded-[16px] border border-line bg-raised p-[18px]">
        <div className="article" style={readingStyle(settings)}>
          <p>{SAMPLE}</p>
        </div>
      </View>
      <ReadingControls />
      <View className="flex-row flex-wrap gap-[10px]">
        <Button label="Dossiers" onPress={() => router.push('/dossiers')} />
        <Button label="Highlights" onPress={() => router.push('/marks')} />
        <Button label="Notes" onPress={() => router.push('/notes')} />
        <Button label="Cards" onPress={() => router.push('/cards')} />
        <Button label="Look-back" onPress={() => router.push('/look-back')} />
        <Button label="How I am doing" onPress={() => router.push('/doing')} />
        <Button label="Save from elsewhere" onPress={() => router.push('/elsewhere')} />
        <Button label="Podcast" onPress={() => router.push('/podcast')} />
        <Button label="Letter and feed" onPress={() => router.push('/reminders')} />
        <Button label="Feeds" onPress={() => router.push('/feeds')} />
        <Button label="Your library as a file" onPress={() => router.push('/archive')} />
      </View>
      <Silenced />
      <PaceSetting />
      <SavingControls />
      <DeviceSpace />
      <AccountSettings />
      <Text className="font-ui text-small text-soft">
        Dorvel is free software under the GNU General Public License, version 3 or later.
      </Text>
    </ScrollView>
  );
}

function SavingControls() {
  const { howMuch, keep } = useSavingSettings();
  return (
    <View className="gap-[10px]">
      <SectionHeading>What a save keeps</SectionHeading>
      <HowMuchChoice value={howMuch} onChange={keep} of={OF_A_PAGE} />
      <Text className="font-ui text-small text-soft">Each save can ask for something else.</Text>
    </View>
  );
}
