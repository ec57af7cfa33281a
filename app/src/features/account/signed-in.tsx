import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { useSetAside, useWaitingCount } from '@/device/store/library';
import { Button } from '@/ui/button';

/** Whose library is on this device, and signing out of it. */
export function SignedIn() {
  const { account, signOut } = useAccount();
  const waiting = useWaitingCount();
  const aside = useSetAside().length;
  const [problem, setProblem] = useState<string | null>(null);
  if (!account) return null;
  const leave = () => {
    setProblem(null);
    signOut().catch((error: unknown) => {
      if (error instanceof Unreachable)
        setProblem('Signing out needs a connection, so that nobody else can go on with your session.');
      else if (error instanceof ServerProblem) setProblem(error.detail);
      else throw error;
    });
  };
  return (
    <View className="items-start gap-[8px]">
      <Text className="font-ui text-base text-ink">
        {account.name}, {account.mail}
      </Text>
      <Text className="font-ui text-small text-soft">
        {waiting > 0
          ? `${waiting} ${waiting === 1 ? 'change has' : 'changes have'} not been sent yet. Signing out is possible when they have.`
          : aside > 0
            ? `Signing out takes the library off this device. It stays on the server, but for ${aside === 1 ? 'the change' : `the ${aside} changes`} that the server would not take.`
            : 'Signing out takes the library off this device. It stays on the server.'}
      </Text>
      <Button label="Sign out" kind="loss" onPress={leave} disabled={waiting > 0} />
      {problem && (
        <Text role="alert" className="font-ui text-small text-brick">
          {problem}
        </Text>
      )}
    </View>
  );
}
