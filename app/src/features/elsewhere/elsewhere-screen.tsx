import type { Token } from '@dorvel/core/model';
import { whenWords } from '@dorvel/core/wording';
import { useCallback, useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { api } from '@/device/sync/api';
import { Button } from '@/ui/button';
import { Page } from '@/ui/page';
import { SectionHeading } from '@/ui/section-heading';
import { Bookmark } from './bookmark';
import { BrowserButton } from './browser-button';
import { inWords } from './in-words';
import { MailAddress } from './mail-address';
import type { MakeToken } from './make-token';

/** Ways to save from outside the app, and who may use them. */
export function ElsewhereScreen() {
  const account = useAccount((state) => state.account);
  const { tokens, problem, make, revoke } = useTokens();
  return (
    <Page title="Save from elsewhere">
      <Text className="font-ui text-base text-ink">
        All of these save to the library of {account?.name ?? 'nobody'}, {account?.mail ?? ''}.
      </Text>
      <BrowserButton make={make} />
      <Bookmark make={make} />
      <MailAddress />
      <View className="gap-[8px]">
        <SectionHeading>Who may save</SectionHeading>
        {problem !== null && (
          <Text role="alert" className="font-ui text-small text-brick">
            {problem}
          </Text>
        )}
        {tokens?.length === 0 && <Text className="font-ui text-base text-soft">Nothing but this app, so far.</Text>}
        {tokens && tokens.length > 0 && (
          <View role="list" aria-label="Who may save">
            {tokens.map((token) => (
              <TokenRow key={token.id} token={token} onRevoke={() => void revoke(token.id)} />
            ))}
          </View>
        )}
      </View>
    </Page>
  );
}

/** The tokens of this account. They are the server's: without a connection they can be neither seen nor changed. */
function useTokens() {
  const [tokens, setTokens] = useState<Token[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const doing = useCallback(async <Result,>(work: () => Promise<Result>): Promise<Result | null> => {
    try {
      const result = await work();
      setTokens((await api.tokens()).tokens);
      setProblem(null);
      return result;
    } catch (error) {
      setProblem(inWords(error));
      return null;
    }
  }, []);
  useEffect(() => void doing(() => Promise.resolve()), [doing]);
  return {
    tokens,
    problem,
    make: (async (name, scope) =>
      (await doing(() => api.makeToken({ name, scope })))?.secret ?? null) satisfies MakeToken,
    revoke: (id: string) => doing(() => api.revokeToken(id)),
  };
}

const KINDS = { save: 'Bookmark', extension: 'Extension' } as const;

function TokenRow({ token, onRevoke }: { token: Token; onRevoke(): void }) {
  const [sure, setSure] = useState(false);
  return (
    <View role="listitem" className="flex-row items-center justify-between gap-[12px] border-b border-line py-[10px]">
      <View className="min-w-0 flex-1">
        <Text className="font-read text-row text-ink">{token.name}</Text>
        <Text className="font-ui text-small text-soft">
          {KINDS[token.scope]}, made {whenWords(token.madeAt)} ·{' '}
          {token.lastUsedAt === null ? 'never used' : `last used ${whenWords(token.lastUsedAt)}`}
        </Text>
      </View>
      <Button
        label={sure ? 'Revoke for good' : 'Revoke'}
        name={sure ? `Revoke “${token.name}” for good` : `Revoke “${token.name}”`}
        kind="loss"
        onPress={() => (sure ? onRevoke() : setSure(true))}
      />
    </View>
  );
}
