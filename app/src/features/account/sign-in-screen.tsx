import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { Mail, NewAccount, type Setup } from '@dorvel/core/model';
import { inputWords } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { api } from '@/device/sync/api';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { Strand } from '@/ui/strand';

/** Signing in; on an empty server, making its first account. */
export function SignInScreen() {
  const { account, needsSignIn, signIn, createAccount } = useAccount();
  const router = useRouter();
  const [setup, setSetup] = useState<Setup | null>(null);
  const [name, setName] = useState('');
  const [mail, setMail] = useState(account?.mail ?? '');
  const [passphrase, setPassphrase] = useState('');
  const [code, setCode] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  useEffect(() => {
    api.setup().then(setSetup, (error: unknown) => setProblem(inWords(error)));
  }, []);

  const first = setup?.needsFirstAccount ?? false;
  const enter = async () => {
    const as = { mail, passphrase, name, code };
    setBusy(true);
    setProblem(null);
    try {
      if (first) {
        const wanted = NewAccount.safeParse(as);
        if (!wanted.success) {
          setProblem(inputWords(wanted.error));
          return;
        }
        await createAccount(wanted.data);
      } else {
        const address = Mail.safeParse(as.mail);
        if (!address.success) {
          setProblem('That is not a mail address. It should look like name@example.org.');
          return;
        }
        await signIn(address.data, as.passphrase);
      }
      router.replace('/now');
    } catch (error) {
      setProblem(inWords(error));
    } finally {
      setBusy(false);
    }
  };
  const demo = setup?.demo;
  return (
    <ScrollView
      role="main"
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[440px] gap-[18px] px-[22px] py-[48px]"
    >
      <View className="gap-[10px] pb-[8px]">
        <Text role="heading" aria-level={1} className="font-read text-title font-semibold text-ink">
          Dorvel
        </Text>
        <Strand minutes={60} passed={0.42} looseEnd={0.42} label="A strand, read to a little under half" room={280} />
        <Text className="font-ui text-base text-soft">
          {needsSignIn && account
            ? 'Your session has ended. What you changed on this device is kept, and sent once you have signed in.'
            : 'What you want to read, on this device, at the place where you stopped.'}
        </Text>
      </View>
      {demo && (
        <View className="gap-[10px] rounded-[16px] border border-line bg-raised p-[18px]">
          <Text className="font-ui text-base text-ink">This is the demo, with the library of {demo.mail}.</Text>
          <Button
            label="Fill in the demo account"
            kind="plain"
            onPress={() => {
              setMail(demo.mail);
              setPassphrase(demo.passphrase);
            }}
          />
        </View>
      )}
      {first && (
        <Text className="font-ui text-base text-ink">
          This library is empty and has no account yet. Make the first one. Its set-up code was printed where the server
          was started.
        </Text>
      )}
      {first && <Field label="Set-up code" value={code} onChangeText={setCode} autoComplete="off" />}
      {first && <Field label="Name" value={name} onChangeText={setName} autoComplete="name" />}
      <Field label="Mail address" value={mail} onChangeText={setMail} autoComplete="email" inputMode="email" />
      <Field
        label={first ? 'Passphrase, 12 characters or more' : 'Passphrase'}
        value={passphrase}
        onChangeText={setPassphrase}
        secureTextEntry
        autoComplete={first ? 'new-password' : 'current-password'}
        onSubmitEditing={() => void enter()}
      />
      {problem && (
        <Text role="alert" className="font-ui text-base text-brick">
          {problem}
        </Text>
      )}
      <Button
        label={busy ? 'One moment…' : first ? 'Make the account' : 'Sign in'}
        kind="main"
        disabled={busy}
        onPress={() => void enter()}
      />
    </ScrollView>
  );
}

function inWords(error: unknown): string {
  if (error instanceof ServerProblem) return error.detail;
  if (error instanceof Unreachable)
    return 'No connection to the server. Signing in needs one; try again when you are online.';
  throw error;
}
