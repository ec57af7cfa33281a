import { Text, View } from 'react-native';
import { useSavingSettings } from '@/features/settings/saving-settings-store';
import { SectionHeading } from '@/ui/section-heading';
import { bookmarklet } from './bookmarklet';
import { CopyButton, type MakeToken, SecretNote, TokenMaker } from './make-token';

/** A bookmark that runs on the page it is pressed on, for browsers without buttons of ours. */
export function Bookmark({ make }: { make: MakeToken }) {
  const chosen = useSavingSettings((state) => state.howMuch);
  const howMuch = chosen === 'selected-part' ? 'words-and-pictures' : chosen;
  return (
    <View className="gap-[12px]">
      <SectionHeading>A bookmark that saves</SectionHeading>
      <Text className="font-ui text-base text-ink">
        Press it on any page: the page is saved as you see it there, also behind a sign-in.
      </Text>
      <TokenMaker
        scope="save"
        asks="Where you will use it"
        proposed="Browser on this device"
        label="Make the bookmark"
        region="Your bookmark"
        make={make}
      >
        {(secret) => {
          const address = bookmarklet(location.origin, secret, howMuch);
          return (
            <>
              <Text className="font-ui text-base text-ink">On a desk: drag this to the bar of bookmarks.</Text>
              <span ref={(element) => element?.replaceChildren(linkToDrag(address))} />
              <Text className="font-ui text-base text-ink">
                On a phone: copy it, bookmark any page, then edit that bookmark and put what you copied in place of its
                address. To use it, type the bookmark’s name into the address line and choose it there.
              </Text>
              <CopyButton label="Copy it" text={address} />
              <SecretNote>
                It holds a secret that is shown only now. Whoever has it can save to your library, and read nothing of
                it.
              </SecretNote>
            </>
          );
        }}
      </TokenMaker>
    </View>
  );
}

/** React sets no address that is a script; this one is to be dragged, and does nothing when it is pressed here. */
function linkToDrag(address: string): HTMLElement {
  const link = document.createElement('a');
  link.href = address;
  link.className = 'file-button';
  link.textContent = 'Save this page';
  link.addEventListener('click', (event) => event.preventDefault());
  return link;
}
