import { pairingCode } from '@dorvel/core/model';
import { Text, View } from 'react-native';
import { SectionHeading } from '@/ui/section-heading';
import { CopyButton, type MakeToken, SecretNote, TokenMaker } from './make-token';

/** The extension: a button in the browser, joined to this library by a code. */
export function BrowserButton({ make }: { make: MakeToken }) {
  return (
    <View className="gap-[12px]">
      <SectionHeading>A button in your browser</SectionHeading>
      <Text className="font-ui text-base text-ink">
        The extension saves the page before you with one press, and links, pictures, selected parts and all tabs of a
        window. Load its folder in the browser, then pair it once with a code.
      </Text>
      <TokenMaker
        scope="extension"
        asks="Which browser it is in"
        proposed="Browser on my desk"
        label="Make a pairing code"
        region="Your pairing code"
        make={make}
      >
        {(secret) => {
          const code = pairingCode(location.origin, secret);
          return (
            <>
              <Text className="font-ui text-base text-ink">Copy it, and put it into the extension’s settings.</Text>
              <Text
                selectable
                role="note"
                aria-label="Pairing code"
                className="font-ui text-base font-semibold text-ink"
              >
                {code}
              </Text>
              <CopyButton label="Copy the code" text={code} />
              <SecretNote>
                It holds a secret that is shown only now. Whoever has it can save to your library, and look up in it
                what you have on a page. You can revoke it below.
              </SecretNote>
            </>
          );
        }}
      </TokenMaker>
    </View>
  );
}
