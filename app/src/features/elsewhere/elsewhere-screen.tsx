import { NewToken, type Token } from '@dorvel/core/model';
import { useCallback, useEffect, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useAccount } from '@/device/account';
import { api } from '@/device/api';
import { useSavingSettings } from '@/features/add/saving-settings-store';
import { whenWords } from '@/features/library/item-words';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { PlaceHeader } from '@/ui/place-header';
import { SectionHeading } from '@/ui/section-heading';
import { bookmarklet } from './bookmarklet';
import { MailAddress } from './mail-address';
import { inWords } from './in-words';

/** Ways to save from outside the app, and who may use them. */
export function ElsewhereScreen() {
  const account = useAccount((state) => state.account);
  const { tokens, problem, make, revoke } = useTokens();
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[640px] gap-[22px] px-[20px] pb-[40px]"
    >
      <PlaceHeader title="Save from elsewhere" />
      <Text className="font-ui text-base text-ink">
        All of these save to the library of {account?.name ?? 'nobody'}, {account?.mail ?? ''}.
      </Text>
      <Bookmark make={make} />
      <MailAddress />
      <View className="gap-[8px]">
        <SectionHeading>Who may save</SectionHeading>
        {problem !== null && (
          <Text role="alert" className="font-ui text-small text-brick">
            {problem}
          </Text>
        )}
        {tokens?.length === 0 && (
          <Text className="font-ui text-base text-soft">Nothing but this app, so far.</Text>
        )}
        {tokens && tokens.length > 0 && (
          <View role="list" aria-label="Who may save">
            {tokens.map((token) => (
              <TokenRow key={token.id} token={token} onRevoke={() => void revoke(token.id)} />
            ))}
          </View>
        )}
      </View>
    </ScrollView>
  );
}

/** The tokens of this account. They are the server's: without a connection they can be neither seen nor changed. */
function useTokens() {
  const [tokens, setTokens] = useState<Token[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const doing = useCallback(async <Result,>(work: () => Promise<Result>): Promise<Result | null> => {
    try {
      const result = await work();
      setTokens((await api.tokens()).tokens);
      setProblem(null);
      return result;
    } catch (error) {
      setProblem(inWords(error));
      return null;
    }
  }, []);
  useEffect(() => void doing(() => Promise.resolve()), [doing]);
  return {
    tokens,
    problem,
    make: async (name: string) => (await doing(() => api.makeToken({ name, scope: 'save' })))?.secret ?? null,
    revoke: (id: string) => doing(() => api.revokeToken(id)),
  };
}

function Bookmark({ make }: { make(name: string): Promise<string | null> }) {
  const howMuch = useSavingSettings((state) => state.howMuch);
  const [name, setName] = useState('Browser on this device');
  const [fault, setFault] = useState<string | null>(null);
  const [address, setAddress] = useState<string | null>(null);
  const [copied, setCopied] = useState(false);
  const begin = async () => {
    const parsed = NewToken.shape.name.safeParse(name);
    if (!parsed.success) {
      setFault(parsed.error.issues[0]?.message ?? 'Say where it is used.');
      return;
    }
    setFault(null);
    const secret = await make(parsed.data);
    if (secret === null) return;
    setCopied(false);
    setAddress(
      bookmarklet(location.origin, secret, howMuch === 'selected-part' ? 'words-and-pictures' : howMuch),
    );
  };
  return (
    <View className="gap-[12px]">
      <SectionHeading>A bookmark that saves</SectionHeading>
      <Text className="font-ui text-base text-ink">
        Press it on any page: the page is saved as you see it there, also behind a sign-in.
      </Text>
      <Field label="Where you will use it" value={name} onChangeText={setName} fault={fault} />
      <View className="items-start">
        <Button
          label="Make the bookmark"
          kind={address === null ? 'main' : 'plain'}
          onPress={() => void begin()}
        />
      </View>
      {address !== null && (
        <View
          role="region"
          aria-label="Your bookmark"
          className="gap-[12px] rounded-[16px] border border-line bg-raised p-[16px]"
        >
          <Text className="font-ui text-base text-ink">On a desk: drag this to the bar of bookmarks.</Text>
          <span ref={(element) => element?.replaceChildren(linkToDrag(address))} />
          <Text className="font-ui text-base text-ink">
            On a phone: copy it, bookmark any page, then edit that bookmark and put what you copied in place
            of its address. To use it, type the bookmark’s name into the address line and choose it there.
          </Text>
          <View className="items-start">
            <Button
              label={copied ? 'Copied' : 'Copy it'}
              onPress={() => void navigator.clipboard.writeText(address).then(() => setCopied(true))}
            />
          </View>
          <Text className="font-ui text-small text-soft">
            It holds a secret that is shown only now. Whoever has it can save to your library, and read
            nothing of it.
          </Text>
        </View>
      )}
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

function TokenRow({ token, onRevoke }: { token: Token; onRevoke(): void }) {
  const [sure, setSure] = useState(false);
  return (
    <View
      role="listitem"
      className="flex-row items-center justify-between gap-[12px] border-b border-line py-[10px]"
    >
      <View className="min-w-0 flex-1">
        <Text className="font-read text-row text-ink">{token.name}</Text>
        <Text className="font-ui text-small text-soft">
          Bookmark, made {whenWords(token.madeAt)} ·{' '}
          {token.lastUsedAt === null ? 'never used' : `last used ${whenWords(token.lastUsedAt)}`}
        </Text>
      </View>
      <Button
        label={sure ? 'Revoke for good' : 'Revoke'}
        name={sure ? `Revoke “${token.name}” for good` : `Revoke “${token.name}”`}
        kind="loss"
        onPress={() => (sure ? onRevoke() : setSure(true))}
      />
    </View>
  );
}
