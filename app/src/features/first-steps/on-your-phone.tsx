import { Text, View } from 'react-native';
import { installWay, useInstall } from '@/device/install';
import { Button } from '@/ui/button';
import { SectionHeading } from '@/ui/section-heading';

const WAYS = {
  'share-sheet': 'In this browser: its share button, then “Add to Home Screen”.',
  menu: 'In this browser: its menu, then “Install” or “Add to home screen”.',
  'address-bar':
    'On a phone, open this address and add it to the home screen. On this computer, some browsers offer it at the end of the address bar.',
} as const;

/** What it is worth to have Dorvel among the apps of a device, and how that is done in the browser in hand. */
export function OnYourPhone() {
  const { installed, ask } = useInstall();
  if (installed) return null;
  return (
    <View role="region" aria-label="Dorvel as an app" className="items-start gap-[10px]">
      <SectionHeading>As an app of this device</SectionHeading>
      <Text className="font-ui text-base text-ink">
        Installed, Dorvel is in the share sheet, so that any app can save to it; it has the whole screen; and the
        browser does not clear away what is kept here when room gets short.
      </Text>
      {ask ? (
        <Button label="Install" onPress={() => void ask()} />
      ) : (
        <Text className="font-ui text-base text-ink">
          {WAYS[installWay(navigator.userAgent, navigator.maxTouchPoints)]}
        </Text>
      )}
      <Text selectable className="font-ui text-small text-soft">
        {location.origin}
      </Text>
    </View>
  );
}
