import type { AccountOverview } from '@dorvel/core/model';
import { useCallback, useEffect, useState } from 'react';
import { Text } from 'react-native';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { Page } from '@/ui/page';
import { AccountLog } from './account-log';
import { ChangePassphrase } from './change-passphrase';
import { EraseAccount } from './erase-account';
import { Invitations } from './invitations';
import { Passkeys } from './passkeys';
import { SaidWrong } from './said-wrong';
import { Sessions } from './sessions';
import { SignedIn } from './signed-in';

/** The reader's account: where it is open, what opens it, who else was let in, what was done with it, and its end. */
export function AccountScreen() {
  const { overview, problem, change } = useOverview();
  return (
    <Page title="Account">
      <SignedIn />
      {overview && <Text className="font-ui text-small text-soft">{keptWords(overview.kept)}</Text>}
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
    </Page>
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
