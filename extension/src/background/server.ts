import {
  ExtensionAccount,
  FoundElsewhere,
  KnownPage,
  MarkedAddresses,
  Problem,
  PushResponse,
  type Mutation,
} from '@dorvel/core/model';
import type { z } from 'zod';

/** The server could not be reached. */
export class Unreachable extends Error {
  override readonly name = 'Unreachable';
}

/** The server does not know the token, or not any more. */
export class Unpaired extends Error {
  override readonly name = 'Unpaired';
}

const TIMEOUT_MS = 30_000;

/** What the extension asks of a server. Answers are parsed; @throws Unreachable, Unpaired */
export function serverAt(origin: string, secret: string) {
  async function call<Schema extends z.ZodType>(
    schema: Schema,
    method: 'GET' | 'POST',
    path: string,
    body?: unknown,
  ): Promise<z.infer<Schema>> {
    let response: Response;
    try {
      response = await fetch(`${origin}/api/extension${path}`, {
        method,
        credentials: 'omit',
        signal: AbortSignal.timeout(TIMEOUT_MS),
        headers: {
          authorization: `Bearer ${secret}`,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      });
    } catch (error) {
      throw new Unreachable('No connection to the server.', { cause: error });
    }
    const answer: unknown = await response.json().catch(() => null);
    const parsed = response.ok ? schema.safeParse(answer) : null;
    if (parsed?.success) return parsed.data;
    const problem = Problem.safeParse(answer).data;
    // Not our server's words: a sign-in page of a train's network, say. What waits must not be taken for refused.
    if (!problem)
      throw new Unreachable(`Something else answered in the server’s place (${response.status}).`);
    const { detail } = problem;
    if (response.status === 401) throw new Unpaired(detail);
    if (response.status >= 500 || response.status === 429) throw new Unreachable(detail);
    throw new Error(detail);
  }
  return {
    account: () => call(ExtensionAccount, 'GET', '/account'),
    item: (id: string) => call(KnownPage, 'GET', `/items/${id}`),
    page: (address: string) => call(KnownPage, 'GET', `/page?${new URLSearchParams({ address }).toString()}`),
    marked: () => call(MarkedAddresses, 'GET', '/marked'),
    find: (words: string) =>
      call(FoundElsewhere, 'GET', `/find?${new URLSearchParams({ words }).toString()}`),
    push: (mutations: readonly Mutation[]) => call(PushResponse, 'POST', '/push', { mutations }),
  };
}
