import { NewAccount } from '@dorvel/core/model';
import { inputWords } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text } from 'react-native';
import { useAccount } from '@/device/store/account';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { PassphraseField } from './passphrase-field';
import { SaidWrong } from './said-wrong';
import { useTrying } from './use-trying';

/** Makes an account: the first of an empty server, by the code it printed, or one that was invited. */
export function MakeAccount({ isFirst, onDone }: { isFirst: boolean; onDone(): void }) {
  const createAccount = useAccount((state) => state.createAccount);
  const [code, setCode] = useState('');
  const [name, setName] = useState('');
  const [mail, setMail] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const { busy, problem, refuse, tryTo } = useTrying();
  const make = async () => {
    const wanted = NewAccount.safeParse({ code, name, mail, passphrase });
    if (!wanted.success) refuse(inputWords(wanted.error));
    else if (await tryTo(() => createAccount(wanted.data))) onDone();
  };
  return (
    <>
      <Text className="font-ui text-base text-ink">
        {isFirst
          ? 'This library is empty and has no account yet. Make the first one. Its set-up code was printed where the server was started.'
          : 'An invitation lets you make an account here, with a library of your own that nobody else sees.'}
      </Text>
      <Field
        label={isFirst ? 'Set-up code' : 'Invitation code'}
        value={code}
        onChangeText={setCode}
        autoComplete="off"
      />
      <Field label="Name" value={name} onChangeText={setName} autoComplete="name" />
      <Field label="Mail address" value={mail} onChangeText={setMail} autoComplete="email" inputMode="email" />
      <PassphraseField
        label="Passphrase, 12 characters or more"
        value={passphrase}
        onChange={setPassphrase}
        isNew
        onSubmit={() => void make()}
      />
      <SaidWrong problem={problem} />
      <Button
        label={busy ? 'One moment…' : 'Make the account'}
        kind="main"
        disabled={busy}
        onPress={() => void make()}
      />
    </>
  );
}
