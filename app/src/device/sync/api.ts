import {
  Account,
  Copy,
  FindResponse,
  MadeToken,
  Mailbox,
  Podcast,
  Problem,
  PullResponse,
  PushResponse,
  Setup,
  TokenList,
  type Mutation,
  type NewAccount,
  type NewToken,
  type Question,
} from '@dorvel/core/model';
import type { z } from 'zod';

/** The server answered that it cannot do what was asked. `detail` is written for the reader. */
export class ServerProblem extends Error {
  override readonly name = 'ServerProblem';
  constructor(
    readonly status: number,
    readonly detail: string,
    /** False when something on the way answered in the server's place, in words of its own. */
    readonly isOurs = true,
  ) {
    super(detail);
  }
}

/** The server could not be reached at all. */
export class Unreachable extends Error {
  override readonly name = 'Unreachable';
}

const TIMEOUT_MS = 30_000;

async function call(method: string, path: string, body?: unknown): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal: AbortSignal.timeout(TIMEOUT_MS),
      credentials: 'same-origin',
      ...(body === undefined
        ? {}
        : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
  } catch (error) {
    throw new Unreachable('No connection to the server.', { cause: error });
  }
  if (response.ok) return response;
  const problem = Problem.safeParse(await response.json().catch(() => null));
  throw new ServerProblem(
    response.status,
    problem.success ? problem.data.detail : `The server answered ${response.status}.`,
    problem.success,
  );
}

async function read<Schema extends z.ZodType>(
  schema: Schema,
  method: string,
  path: string,
  body?: unknown,
): Promise<z.infer<Schema>> {
  return schema.parse(await (await call(method, path, body)).json());
}

/** The server's routes, each answer parsed. Every call may throw ServerProblem or Unreachable. */
export const api = {
  setup: () => read(Setup, 'GET', '/setup'),
  signIn: (mail: string, passphrase: string) => read(Account, 'POST', '/session', { mail, passphrase }),
  createAccount: (account: z.infer<typeof NewAccount>) => read(Account, 'POST', '/accounts', account),
  signOut: () => call('DELETE', '/session'),
  push: (mutations: Mutation[]) => read(PushResponse, 'POST', '/sync/push', { mutations }),
  pull: (after: number) => read(PullResponse, 'GET', `/sync/pull?after=${after}`),
  find: (question: Question, passages: number) =>
    read(FindResponse, 'POST', '/find', { ...question, from: 0, passages }),
  podcast: () => read(Podcast, 'GET', '/podcast'),
  makePodcast: () => read(Podcast, 'POST', '/podcast', {}),
  endPodcast: () => read(Podcast, 'DELETE', '/podcast'),
  mailbox: () => read(Mailbox, 'GET', '/mailbox'),
  allowSenders: (senders: string[]) => read(Mailbox, 'PUT', '/mailbox', { senders }),
  renameMailbox: () => read(Mailbox, 'POST', '/mailbox/rename', {}),
  tokens: () => read(TokenList, 'GET', '/tokens'),
  makeToken: (token: z.infer<typeof NewToken>) => read(MadeToken, 'POST', '/tokens', token),
  revokeToken: (id: string) => call('DELETE', `/tokens/${id}`),
  copy: (id: string) => read(Copy, 'GET', `/copies/${id}`),
};
