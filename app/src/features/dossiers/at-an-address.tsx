import type { Publication, PublicationAccess } from '@dorvel/core/model';
import { whenWords } from '@dorvel/core/wording';
import { useCallback, useEffect, useState } from 'react';
import { Linking, Text, View } from 'react-native';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { SecretAddress } from '@/features/elsewhere/secret-address';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { SectionHeading } from '@/ui/section-heading';
import { SureButton } from '@/ui/sure-button';

const ACCESS: readonly { value: PublicationAccess; label: string }[] = [
  { value: 'unlisted', label: 'Who has the address' },
  { value: 'passphrase', label: 'Who has a passphrase' },
  { value: 'listed', label: 'Everybody' },
];
const ABOUT: Readonly<Record<PublicationAccess, string>> = {
  unlisted: 'Nobody can guess the address, and search engines are told to leave the page out.',
  passphrase: 'Who opens the address is asked for the passphrase. Search engines are told to leave the page out.',
  listed: 'It stands in the list of what this server shows, and search engines may find it.',
};

/** The page of a dossier that others can open; what is added later appears there. */
export function AtAnAddress({ dossierId }: { dossierId: string }) {
  const { known, problem, take } = usePublication(dossierId);
  const [access, setAccess] = useState<PublicationAccess | null>(null);
  const [passphrase, setPassphrase] = useState('');
  const there = known?.publication ?? null;
  const isOut = there !== null && there.withdrawnAt === null;
  const wanted = access ?? there?.access ?? 'unlisted';
  const needsPassphrase = wanted === 'passphrase' && (there?.access !== 'passphrase' || !isOut);
  const put = (renew = false) => {
    take(api.publish(dossierId, { access: wanted, passphrase: passphrase === '' ? null : passphrase, renew }));
    setPassphrase('');
    setAccess(null);
  };
  return (
    <View role="region" aria-label="At an address" className="gap-[12px]">
      <SectionHeading>At an address</SectionHeading>
      {problem !== null && (
        <Text role="alert" className="font-ui text-small text-brick">
          {problem}
        </Text>
      )}
      {known === undefined && problem === null && <Text className="font-ui text-base text-soft">Asking…</Text>}
      {known && (
        <>
          {isOut && (
            <SecretAddress
              name="Address of the page"
              address={there.address}
              onRenew={() => put(true)}
              words={`Since ${whenWords(there.madeAt)}. What you add appears there by itself.`}
            >
              <Button label="Look at it" onPress={() => void Linking.openURL(there.address)} />
              <SureButton label="Withdraw it" sure="Yes, withdraw it" onPress={() => take(api.withdraw(dossierId))} />
            </SecretAddress>
          )}
          {there && !isOut && (
            <Text className="font-ui text-base text-ink">
              It is withdrawn: who opens the address is told that it is gone.
            </Text>
          )}
          <Choice name="Who may see it" options={ACCESS} value={wanted} onChange={(value) => setAccess(value)} />
          <Text className="font-ui text-small text-soft">{ABOUT[wanted]}</Text>
          {wanted === 'passphrase' && (
            <Field
              label={needsPassphrase ? 'Passphrase, 6 characters or more' : 'Another passphrase, if you want one'}
              value={passphrase}
              onChangeText={setPassphrase}
              autoComplete="off"
            />
          )}
          {(!isOut || access !== null || passphrase !== '') && (
            <View className="items-start">
              <Button
                label={isOut ? 'Change who may see it' : there ? 'Put it there again' : 'Put it at an address'}
                kind="main"
                disabled={needsPassphrase && passphrase.length < 6}
                onPress={() => put()}
              />
            </View>
          )}
          {isOut && there.access !== 'passphrase' && (
            <View className="gap-[6px]">
              <Text className="font-ui text-small text-soft">To follow it, as Atom and as JSON Feed:</Text>
              <Text selectable role="note" aria-label="Feed (Atom)" className="font-ui text-small text-ink">
                {there.atom}
              </Text>
              <Text selectable role="note" aria-label="Feed (JSON)" className="font-ui text-small text-ink">
                {there.json}
              </Text>
              <Text className="font-ui text-small text-soft">To set it into another page:</Text>
              <Text selectable role="note" aria-label="For another page" className="font-ui text-small text-ink">
                {there.fragment}
              </Text>
            </View>
          )}
        </>
      )}
    </View>
  );
}

/** It is the server's: without a connection it can be neither seen nor changed. */
function usePublication(dossierId: string) {
  const [known, setKnown] = useState<Publication | undefined>(undefined);
  const [problem, setProblem] = useState<string | null>(null);
  const take = useCallback(
    (asked: Promise<Publication>) =>
      void asked.then(
        (answer) => {
          setKnown(answer);
          setProblem(null);
        },
        (error: unknown) => setProblem(inWords(error)),
      ),
    [],
  );
  useEffect(() => take(api.publication(dossierId)), [dossierId, take]);
  return { known, problem, take };
}
