import type { AccountOverview } from '@dorvel/core/model';
import { useCallback, useEffect, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { ScreenHeader } from '@/ui/screen-header';
import { AccountLog } from './account-log';
import { ChangePassphrase } from './change-passphrase';
import { EraseAccount } from './erase-account';
import { Invitations } from './invitations';
import { Passkeys } from './passkeys';
import { SaidWrong } from './said-wrong';
import { Sessions } from './sessions';

/** The reader's account: where it is open, what opens it, who else was let in, what was done with it, and its end. */
export function AccountScreen() {
  const account = useAccount((state) => state.account);
  const { overview, problem, change } = useOverview();
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[640px] gap-[26px] px-[20px] pb-[40px]"
    >
      <ScreenHeader title="Account" />
      <View className="gap-[4px]">
        <Text className="font-ui text-base text-ink">
          {account?.name ?? ''}, {account?.mail ?? ''}
        </Text>
        {overview && <Text className="font-ui text-small text-soft">{keptWords(overview.kept)}</Text>}
      </View>
      <SaidWrong problem={problem} />
      {!overview && problem === null && <Text className="font-ui text-base text-soft">Asking…</Text>}
      {overview && (
        <>
          <Sessions overview={overview} change={change} />
          <ChangePassphrase overview={overview} change={change} />
          <Passkeys overview={overview} change={change} />
          {overview.mayInvite && <Invitations overview={overview} change={change} />}
          <AccountLog events={overview.events} />
          <EraseAccount />
        </>
      )}
    </ScrollView>
  );
}

function keptWords({ items, pictureBytes, pictureQuotaBytes }: AccountOverview['kept']): string {
  const megabytes = (bytes: number) => (bytes / 1_000_000).toLocaleString('en', { maximumFractionDigits: 1 });
  const of = pictureQuotaBytes === null ? '' : ` of ${megabytes(pictureQuotaBytes)}`;
  const isFull = pictureQuotaBytes !== null && pictureBytes >= pictureQuotaBytes;
  return `On the server: ${items} ${items === 1 ? 'item' : 'items'}, ${megabytes(pictureBytes)}${of} MB of pictures.${isFull ? ' There is no room for more: texts come without pictures until something is let go.' : ''}`;
}

/** It is the server's: without a connection it can be neither seen nor changed. */
function useOverview() {
  const [overview, setOverview] = useState<AccountOverview | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const change = useCallback(async (work: () => Promise<unknown>): Promise<boolean> => {
    try {
      await work();
      setOverview(await api.account());
      setProblem(null);
      return true;
    } catch (error) {
      setProblem(inWords(error));
      return false;
    }
  }, []);
  useEffect(() => void change(() => Promise.resolve()), [change]);
  return { overview, problem, change };
}
