import { clientOf, ServerProblem, Unreachable } from '@dorvel/core/client';
import { EchoesAnswer, ExtensionAccount, FoundElsewhere, KnownPage, MarkedAddresses } from '@dorvel/core/model';
import type { Mutation } from '@dorvel/core/records';
import { PushResponse } from '@dorvel/core/sync';

/** What the extension asks of a server. @throws ServerProblem, Unreachable */
export function serverAt(origin: string, secret: string) {
  const { read } = clientOf({
    base: `${origin}/api/extension`,
    credentials: 'omit',
    headers: { authorization: `Bearer ${secret}` },
    fetch: (...words) => fetch(...words),
  });
  const query = (words: Record<string, string>) => new URLSearchParams(words).toString();
  return {
    account: () => read(ExtensionAccount, 'GET', '/account'),
    item: (id: string) => read(KnownPage, 'GET', `/items/${id}`),
    page: (address: string) => read(KnownPage, 'GET', `/page?${query({ address })}`),
    marked: () => read(MarkedAddresses, 'GET', '/marked'),
    echoes: (after: number) => read(EchoesAnswer, 'GET', `/echoes?${query({ after: String(after) })}`),
    find: (words: string) => read(FoundElsewhere, 'GET', `/find?${query({ words })}`),
    push: (mutations: readonly Mutation[]) => read(PushResponse, 'POST', '/push', { mutations }),
  };
}

/** The server does not know the token, or not any more. */
export function isUnpaired(error: unknown): boolean {
  return error instanceof ServerProblem && error.status === 401;
}

/** It is to be tried again later: there is no connection, or the server cannot just now. */
export function isOfNow(error: unknown): boolean {
  if (error instanceof ServerProblem) return error.status >= 500 || [426, 429].includes(error.status);
  return error instanceof Unreachable && error.status !== 413;
}
