import { NewPasskey, type Passkey } from '@dorvel/core/model';
import { inputWords, whenWords } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { api } from '@/device/sync/api';
import { knowsPasskeys, makePasskey } from '@/device/sync/passkeys';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { namedList } from '@/ui/named-list';
import { Line, Part, type PartProps } from './part';
import { PassphraseField } from './passphrase-field';
import { SaidWrong } from './said-wrong';
import { useTrying } from './use-trying';

/** What opens the account beside the passphrase. */
export function Passkeys({ overview: { passkeys, passkeysOnly }, change }: PartProps) {
  return (
    <Part name="Passkeys">
      <Text className="font-ui text-base text-ink">
        A passkey signs you in by your fingerprint, your face or the PIN of a device.{' '}
        {passkeysOnly ? 'Nothing else opens this account.' : 'It works beside the passphrase.'}
      </Text>
      <View {...namedList('Passkeys', passkeys.length)}>
        {passkeys.map((passkey) => (
          <PasskeyLine
            key={passkey.id}
            passkey={passkey}
            isKept={passkeysOnly && passkeys.length === 1}
            onRemove={() => void change(() => api.removePasskey(passkey.id))}
          />
        ))}
      </View>
      {knowsPasskeys() ? (
        <AddPasskey onAdded={() => void change(() => Promise.resolve())} />
      ) : (
        <Text className="font-ui text-small text-soft">This browser knows no passkeys here. They need TLS.</Text>
      )}
      {passkeys.length > 0 && (
        <OnlyPasskeys
          key={String(passkeysOnly)}
          isOn={passkeysOnly}
          onChanged={() => void change(() => Promise.resolve())}
        />
      )}
    </Part>
  );
}

/** Whether the passphrase alone opens the account no more; it is asked for before that changes. */
function OnlyPasskeys({ isOn, onChanged }: { isOn: boolean; onChanged(): void }) {
  const [isAsked, setAsked] = useState(false);
  const [passphrase, setPassphrase] = useState('');
  const { busy, problem, refuse, tryTo } = useTrying();
  const go = async () => {
    if (passphrase === '') refuse('Give your passphrase, so that nobody else changes this.');
    else if (await tryTo(() => api.setPasskeysOnly({ passphrase, wanted: !isOn }))) onChanged();
  };
  if (!isAsked)
    return (
      <View className="items-start">
        <Button
          label={isOn ? 'Let the passphrase sign in, too' : 'Let only a passkey sign in'}
          onPress={() => setAsked(true)}
        />
      </View>
    );
  return (
    <View className="gap-[10px] rounded-[16px] border border-line bg-raised p-[16px]">
      <Text className="font-ui text-base text-ink">
        {isOn
          ? 'Who has your passphrase can sign in again without a passkey.'
          : 'Who learns your passphrase is not let in by it. Have passkeys on two devices: if none is left, only whoever runs this server can let you in.'}
      </Text>
      <PassphraseField label="Your passphrase" value={passphrase} onChange={setPassphrase} onSubmit={() => void go()} />
      <SaidWrong problem={problem} />
      <View className="flex-row flex-wrap gap-[10px]">
        <Button
          label={busy ? 'One moment…' : isOn ? 'Let it sign in' : 'Only passkeys from here on'}
          kind="main"
          disabled={busy}
          onPress={() => void go()}
        />
        <Button label="Leave it as it is" onPress={() => setAsked(false)} />
      </View>
    </View>
  );
}

interface PasskeyLineProps {
  passkey: Passkey;
  /** It cannot be removed: nothing else opens the account. */
  isKept: boolean;
  onRemove(): void;
}

function PasskeyLine({ passkey, isKept, onRemove }: PasskeyLineProps) {
  const [sure, setSure] = useState(false);
  return (
    <Line
      title={passkey.name}
      about={`Added ${whenWords(passkey.madeAt)} · ${passkey.lastUsedAt === null ? 'never used' : `last used ${whenWords(passkey.lastUsedAt)}`}`}
      end={
        isKept ? null : (
          <Button
            label={sure ? 'Remove for good' : 'Remove'}
            name={sure ? `Remove “${passkey.name}” for good` : `Remove “${passkey.name}”`}
            kind="loss"
            onPress={() => (sure ? onRemove() : setSure(true))}
          />
        )
      }
    />
  );
}

function AddPasskey({ onAdded }: { onAdded(): void }) {
  const [isOpen, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const { busy, problem, refuse, tryTo } = useTrying();
  const add = async () => {
    const named = NewPasskey.shape.name.safeParse(name);
    if (!named.success) refuse(inputWords(named.error));
    else if (passphrase === '') refuse('Give your passphrase, so that nobody else adds a passkey here.');
    else if (
      await tryTo(async () =>
        api.addPasskey({ ...(await makePasskey(await api.askNewPasskey(passphrase))), name: named.data }),
      )
    ) {
      setOpen(false);
      setName('');
      setPassphrase('');
      onAdded();
    }
  };
  if (!isOpen)
    return (
      <View className="items-start">
        <Button label="Add a passkey" onPress={() => setOpen(true)} />
      </View>
    );
  return (
    <View className="gap-[10px] rounded-[16px] border border-line bg-raised p-[16px]">
      <Field label="Name, such as “My phone”" value={name} onChangeText={setName} autoFocus />
      <PassphraseField
        label="Your passphrase"
        value={passphrase}
        onChange={setPassphrase}
        onSubmit={() => void add()}
      />
      <SaidWrong problem={problem} />
      <View className="flex-row flex-wrap gap-[10px]">
        <Button
          label={busy ? 'One moment…' : 'Make the passkey'}
          kind="main"
          disabled={busy}
          onPress={() => void add()}
        />
        <Button label="Not now" onPress={() => setOpen(false)} />
      </View>
    </View>
  );
}
