import { useRouter } from 'expo-router';
import { Pressable, Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { useWaitingCount } from '@/device/store/library';
import { useSync } from '@/device/sync/sync-loop';

/** A small line that speaks up only when something is not as it should be: offline, waiting, signed out. */
export function StatusLine() {
  const { online, problem } = useSync();
  const needsSignIn = useAccount((state) => state.needsSignIn);
  const waiting = useWaitingCount();
  const router = useRouter();
  const changes = waiting === 0 ? '' : `${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'} to be sent`;
  if (needsSignIn) {
    return (
      <Line>
        <Text className={WORDS}>Signed out. {changes ? `${changes}; nothing is lost.` : 'You can go on reading.'}</Text>
        <Pressable
          role="button"
          onPress={() => router.push('/sign-in')}
          className="min-h-[44px] justify-center px-[8px]"
        >
          <Text className="font-ui text-small font-semibold text-accent underline">Sign in</Text>
        </Pressable>
      </Line>
    );
  }
  const words = !online
    ? `Offline.${changes ? ` ${changes}.` : ' What is on this device can be read.'}`
    : problem
      ? `${problem}${changes ? ` ${changes}.` : ''}`
      : null;
  return words ? (
    <Line>
      <Text className={WORDS}>{words}</Text>
    </Line>
  ) : null;
}

const WORDS = 'flex-shrink font-ui text-small text-ink py-[8px]';

function Line({ children }: { children: React.ReactNode }) {
  return (
    <View
      role="status"
      aria-live="polite"
      className="flex-row flex-wrap items-center justify-center bg-sunken px-[16px]"
    >
      {children}
    </View>
  );
}
