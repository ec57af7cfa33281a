import { Mail, type Setup } from '@dorvel/core/model';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { knowsPasskeys } from '@/device/sync/passkeys';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { PassphraseField } from './passphrase-field';
import { SaidWrong } from './said-wrong';
import { useTrying } from './use-trying';

export const NO_ADDRESS = 'That is not a mail address. It should look like name@example.org.';

/** Signs in, by mail address and passphrase or by a passkey. */
export function SignIn({ demo, onDone }: { demo: Setup['demo']; onDone(): void }) {
  const { account, signIn, signInByPasskey } = useAccount();
  const [mail, setMail] = useState(account?.mail ?? '');
  const [passphrase, setPassphrase] = useState('');
  const { busy, problem, refuse, tryTo } = useTrying();
  const enter = async (by: () => Promise<void>) => {
    if (await tryTo(by)) onDone();
  };
  const byPassphrase = () => {
    const address = Mail.safeParse(mail);
    if (!address.success) refuse(NO_ADDRESS);
    else void enter(() => signIn(address.data, passphrase));
  };
  return (
    <>
      {demo && (
        <View className="gap-[10px] rounded-[16px] border border-line bg-raised p-[18px]">
          <Text className="font-ui text-base text-ink">This is the demo, with the library of {demo.mail}.</Text>
          <Button
            label="Fill in the demo account"
            onPress={() => {
              setMail(demo.mail);
              setPassphrase(demo.passphrase);
            }}
          />
        </View>
      )}
      <Field label="Mail address" value={mail} onChangeText={setMail} autoComplete="email" inputMode="email" />
      <PassphraseField label="Passphrase" value={passphrase} onChange={setPassphrase} onSubmit={byPassphrase} />
      <SaidWrong problem={problem} />
      <Button label={busy ? 'One moment…' : 'Sign in'} kind="main" disabled={busy} onPress={byPassphrase} />
      {knowsPasskeys() && <Button label="Use a passkey" disabled={busy} onPress={() => void enter(signInByPasskey)} />}
    </>
  );
}
