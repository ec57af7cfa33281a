import type { Setup } from '@dorvel/core/model';
import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { saveGuide } from '@/features/first-steps/guide';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { Strand } from '@/ui/strand';
import { Forgotten } from './forgotten';
import { MakeAccount } from './make-account';
import { SignIn } from './sign-in';

type Way = 'sign-in' | 'invited' | 'forgotten';

/** The way into a library: signing in; making the first account of an empty server, or one that was invited; another passphrase. */
export function SignInScreen() {
  const { account, needsSignIn } = useAccount();
  const router = useRouter();
  const [setup, setSetup] = useState<Setup | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const show = useNotices((state) => state.show);
  const [way, setWay] = useState<Way>('sign-in');
  useEffect(() => {
    api.setup().then(setSetup, (error: unknown) => setProblem(inWords(error)));
  }, []);
  const enter = () => router.replace('/now');
  const begin = () => {
    enter();
    // Without it the library is only emptier.
    saveGuide().catch(() => show({ text: 'The guide could not be saved. The first steps on Now offer it again.' }));
  };
  const first = setup?.needsFirstAccount ?? false;
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
      {problem !== null && (
        <Text role="alert" className="font-ui text-base text-brick">
          {problem}
        </Text>
      )}
      {first || way === 'invited' ? (
        <MakeAccount isFirst={first} onDone={begin} />
      ) : way === 'forgotten' ? (
        <Forgotten sendsMail={setup?.sendsMail ?? false} onDone={enter} />
      ) : (
        <SignIn demo={setup?.demo ?? null} onDone={enter} />
      )}
      {!first && (
        <View className="gap-[10px] border-t border-line pt-[18px]">
          {way !== 'sign-in' && <Button label="Back to signing in" onPress={() => setWay('sign-in')} />}
          {way === 'sign-in' && <Button label="Forgotten the passphrase?" onPress={() => setWay('forgotten')} />}
          {way === 'sign-in' && <Button label="I have an invitation" onPress={() => setWay('invited')} />}
        </View>
      )}
    </ScrollView>
  );
}
