import {
  Account,
  AccountOverview,
  AccountPartParams,
  Alive,
  CodeWish,
  Copy,
  CopyParams,
  DossierFileAsked,
  DossierFileParams,
  DossierLetter,
  DossierParams,
  EchoesAnswer,
  EchoesAsked,
  ExtensionAccount,
  FeedWish,
  FindRequest,
  FindResponse,
  FoundElsewhere,
  KnownPage,
  LetterSent,
  LetterWish,
  MadeInvitation,
  MadeToken,
  Mailbox,
  MailboxChanges,
  MarkedAddresses,
  NewAccount,
  NewPasskey,
  NewToken,
  NightlyArchive,
  PageAsked,
  Passkey,
  PasskeyOptions,
  PasskeySignIn,
  PasskeysOnly,
  PassphraseAgain,
  PassphraseByCode,
  PassphraseChange,
  PictureParams,
  Podcast,
  Problem,
  Publication,
  PublicationWish,
  Ready,
  Reminders,
  Setup,
  SignIn,
  TokenList,
  TokenParams,
  WordsAsked,
} from '@dorvel/core/model';
import { REGISTRY, type Registry } from '@dorvel/core/records';
import { PROTOCOL, PROTOCOL_HEADER, PullHead, PullQuery, PushRequest, PushResponse } from '@dorvel/core/sync';
import { Router } from 'express';
import { z } from 'zod';

/** Who is let in: with a session's cookie, with a token of the extension's, or anybody. */
type Entry = 'session' | 'extension' | 'anybody';

interface Operation {
  method: 'get' | 'post' | 'put' | 'delete';
  path: string;
  summary: string;
  entry: Entry;
  params?: z.ZodObject;
  query?: z.ZodObject;
  body?: z.ZodType;
  /** What is answered: a schema; a media type, for what is not JSON; nothing. */
  answer: z.ZodType | string | null;
  status?: number;
}

/** The answer to a pull: the records by the plurals of their kinds, beside what every pull says. */
const pullSchema = ({ kinds }: Registry) =>
  PullHead.extend(Object.fromEntries(kinds.map(({ plural, schema }) => [plural, z.array(schema)])));

/** All that the API does. Each operation's input and output are the schemas that the route itself parses. */
const OPERATIONS: readonly Operation[] = [
  { method: 'get', path: '/healthz', summary: 'The process is alive', entry: 'anybody', answer: Alive },
  { method: 'get', path: '/readyz', summary: 'It can do its work', entry: 'anybody', answer: Ready },
  {
    method: 'get',
    path: '/api/openapi.json',
    summary: 'This description',
    entry: 'anybody',
    answer: z.looseObject({}),
  },
  {
    method: 'get',
    path: '/api/setup',
    summary: 'What the sign-in screen needs to know',
    entry: 'anybody',
    answer: Setup,
  },
  {
    method: 'post',
    path: '/api/accounts',
    summary: 'Make the first account, or one that was invited',
    entry: 'anybody',
    body: NewAccount,
    answer: Account,
    status: 201,
  },
  {
    method: 'post',
    path: '/api/session',
    summary: 'Sign in',
    entry: 'anybody',
    body: SignIn,
    answer: Account,
  },
  { method: 'get', path: '/api/session', summary: 'Who is signed in', entry: 'session', answer: Account },
  {
    method: 'delete',
    path: '/api/session',
    summary: 'Sign out',
    entry: 'anybody',
    answer: null,
    status: 204,
  },
  {
    method: 'post',
    path: '/api/session/passkey/options',
    summary: 'What an authenticator is to sign for signing in',
    entry: 'anybody',
    answer: PasskeyOptions,
  },
  {
    method: 'post',
    path: '/api/session/passkey',
    summary: 'Sign in with a passkey',
    entry: 'anybody',
    body: PasskeySignIn,
    answer: Account,
  },
  {
    method: 'post',
    path: '/api/reset',
    summary: 'Have a code sent by which another passphrase can be chosen',
    entry: 'anybody',
    body: CodeWish,
    answer: null,
    status: 202,
  },
  {
    method: 'post',
    path: '/api/reset/passphrase',
    summary: 'Choose another passphrase by a code',
    entry: 'anybody',
    body: PassphraseByCode,
    answer: Account,
  },
  {
    method: 'get',
    path: '/api/account',
    summary: 'Sessions, passkeys, invitations and what was done with the account',
    entry: 'session',
    answer: AccountOverview,
  },
  {
    method: 'put',
    path: '/api/account/passphrase',
    summary: 'Another passphrase; other sessions end',
    entry: 'session',
    body: PassphraseChange,
    answer: null,
    status: 204,
  },
  {
    method: 'delete',
    path: '/api/account/sessions',
    summary: 'End all other sessions',
    entry: 'session',
    answer: null,
    status: 204,
  },
  {
    method: 'delete',
    path: '/api/account/sessions/{id}',
    summary: 'End a session',
    entry: 'session',
    params: AccountPartParams,
    answer: null,
    status: 204,
  },
  {
    method: 'post',
    path: '/api/account/invitations',
    summary: 'Invite somebody; the code is told once',
    entry: 'session',
    answer: MadeInvitation,
    status: 201,
  },
  {
    method: 'delete',
    path: '/api/account/invitations/{id}',
    summary: 'Withdraw an invitation',
    entry: 'session',
    params: AccountPartParams,
    answer: null,
    status: 204,
  },
  {
    method: 'post',
    path: '/api/account/passkeys/options',
    summary: 'What an authenticator is asked for a new passkey',
    entry: 'session',
    body: PassphraseAgain,
    answer: PasskeyOptions,
  },
  {
    method: 'post',
    path: '/api/account/passkeys',
    summary: 'Add a passkey',
    entry: 'session',
    body: NewPasskey,
    answer: Passkey,
    status: 201,
  },
  {
    method: 'delete',
    path: '/api/account/passkeys/{id}',
    summary: 'Remove a passkey',
    entry: 'session',
    params: AccountPartParams,
    answer: null,
    status: 204,
  },
  {
    method: 'put',
    path: '/api/account/passkeys-only',
    summary: 'Whether only a passkey opens the account, or its passphrase too',
    entry: 'session',
    body: PasskeysOnly,
    answer: null,
    status: 204,
  },
  {
    method: 'post',
    path: '/api/account/erase',
    summary: 'Erase the account and all that is kept of it',
    entry: 'session',
    body: PassphraseAgain,
    answer: null,
    status: 204,
  },
  {
    method: 'post',
    path: '/api/sync/push',
    summary: 'Send changes',
    entry: 'session',
    body: PushRequest,
    answer: PushResponse,
  },
  {
    method: 'get',
    path: '/api/sync/pull',
    summary: 'What has changed since a cursor',
    entry: 'session',
    query: PullQuery,
    answer: pullSchema(REGISTRY),
  },
  {
    method: 'get',
    path: '/api/sync/events',
    summary: 'Hear that something has changed',
    entry: 'session',
    answer: 'text/event-stream',
  },
  {
    method: 'get',
    path: '/api/copies/{id}',
    summary: 'A copy of an item',
    entry: 'session',
    params: CopyParams,
    answer: Copy,
  },
  {
    method: 'get',
    path: '/api/pictures/{file}',
    summary: 'A picture of a copy',
    entry: 'session',
    params: PictureParams,
    answer: 'image/webp',
  },
  {
    method: 'post',
    path: '/api/find',
    summary: 'Find in the whole library',
    entry: 'session',
    body: FindRequest,
    answer: FindResponse,
  },
  {
    method: 'get',
    path: '/api/tokens',
    summary: 'The tokens that there are',
    entry: 'session',
    answer: TokenList,
  },
  {
    method: 'post',
    path: '/api/tokens',
    summary: 'Make a token; its secret is told once',
    entry: 'session',
    body: NewToken,
    answer: MadeToken,
    status: 201,
  },
  {
    method: 'delete',
    path: '/api/tokens/{id}',
    summary: 'Revoke a token',
    entry: 'session',
    params: TokenParams,
    answer: null,
    status: 204,
  },
  {
    method: 'get',
    path: '/api/mailbox',
    summary: 'The address that takes mail',
    entry: 'session',
    answer: Mailbox,
  },
  {
    method: 'put',
    path: '/api/mailbox',
    summary: 'Who may send mail to it',
    entry: 'session',
    body: MailboxChanges,
    answer: Mailbox,
  },
  {
    method: 'post',
    path: '/api/mailbox/rename',
    summary: 'Another address in its place',
    entry: 'session',
    answer: Mailbox,
  },
  {
    method: 'get',
    path: '/api/podcast',
    summary: 'The podcast of the Queue',
    entry: 'session',
    answer: Podcast,
  },
  {
    method: 'post',
    path: '/api/podcast',
    summary: 'Make it, or give it another address',
    entry: 'session',
    answer: Podcast,
  },
  { method: 'delete', path: '/api/podcast', summary: 'End it', entry: 'session', answer: Podcast },
  {
    method: 'get',
    path: '/api/archive',
    summary: 'All of the library, as one file',
    entry: 'session',
    answer: 'application/zip',
  },
  {
    method: 'get',
    path: '/api/archive/nightly',
    summary: 'What is written into a folder of the server each night',
    entry: 'session',
    answer: NightlyArchive,
  },
  {
    method: 'put',
    path: '/api/archive/in',
    summary: 'Send an archive (application/zip), and hear what it has: lines of JSON, the last the whole',
    entry: 'session',
    answer: 'application/jsonl',
  },
  {
    method: 'post',
    path: '/api/archive/in',
    summary: 'Bring in the archive that was sent: lines of JSON likewise',
    entry: 'session',
    answer: 'application/jsonl',
  },
  {
    method: 'delete',
    path: '/api/archive/in',
    summary: 'Forget the archive that was sent',
    entry: 'session',
    answer: null,
    status: 204,
  },
  {
    method: 'get',
    path: '/api/dossiers/{id}/publication',
    summary: 'Where a dossier is handed on, if it is',
    entry: 'session',
    params: DossierParams,
    answer: Publication,
  },
  {
    method: 'put',
    path: '/api/dossiers/{id}/publication',
    summary: 'Hand a dossier on at an address',
    entry: 'session',
    params: DossierParams,
    body: PublicationWish,
    answer: Publication,
  },
  {
    method: 'delete',
    path: '/api/dossiers/{id}/publication',
    summary: 'Withdraw it',
    entry: 'session',
    params: DossierParams,
    answer: Publication,
  },
  {
    method: 'get',
    path: '/api/dossiers/{id}/files/{format}',
    summary: 'A dossier as a file',
    entry: 'session',
    params: DossierFileParams,
    query: DossierFileAsked,
    answer: 'application/octet-stream',
  },
  {
    method: 'post',
    path: '/api/dossiers/{id}/letter',
    summary: 'Send a dossier as a letter',
    entry: 'session',
    params: DossierParams,
    body: DossierLetter,
    answer: null,
    status: 204,
  },
  {
    method: 'get',
    path: '/api/reminders',
    summary: 'The daily letter and the feed of what comes back',
    entry: 'session',
    answer: Reminders,
  },
  {
    method: 'put',
    path: '/api/reminders/letter',
    summary: 'When the letter is to come, if it is',
    entry: 'session',
    body: LetterWish,
    answer: Reminders,
  },
  {
    method: 'post',
    path: '/api/reminders/letter/now',
    summary: 'Send a letter at once',
    entry: 'session',
    answer: LetterSent,
  },
  {
    method: 'post',
    path: '/api/reminders/feed',
    summary: 'Begin the feed, or give it another address',
    entry: 'session',
    body: FeedWish,
    answer: Reminders,
  },
  { method: 'delete', path: '/api/reminders/feed', summary: 'End it', entry: 'session', answer: Reminders },
  {
    method: 'get',
    path: '/api/extension/account',
    summary: 'Whose library a token is for',
    entry: 'extension',
    answer: ExtensionAccount,
  },
  {
    method: 'get',
    path: '/api/extension/page',
    summary: 'What the library has of a page',
    entry: 'extension',
    query: PageAsked,
    answer: KnownPage,
  },
  {
    method: 'get',
    path: '/api/extension/items/{id}',
    summary: 'An item, as the panel shows it',
    entry: 'extension',
    params: CopyParams,
    answer: KnownPage,
  },
  {
    method: 'get',
    path: '/api/extension/marked',
    summary: 'Addresses in which something is marked',
    entry: 'extension',
    answer: MarkedAddresses,
  },
  {
    method: 'get',
    path: '/api/extension/echoes',
    summary: 'What the items speak of, changed after a sequence',
    entry: 'extension',
    query: EchoesAsked,
    answer: EchoesAnswer,
  },
  {
    method: 'get',
    path: '/api/extension/find',
    summary: 'Items that have these words',
    entry: 'extension',
    query: WordsAsked,
    answer: FoundElsewhere,
  },
  {
    method: 'post',
    path: '/api/extension/push',
    summary: 'Send changes that an extension may make',
    entry: 'extension',
    body: PushRequest,
    answer: PushResponse,
  },
];

const jsonSchema = (schema: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _dialect, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return rest;
};
const json = (schema: z.ZodType, io: 'input' | 'output') => ({
  content: { 'application/json': { schema: jsonSchema(schema, io) } },
});
const parameters = (schema: z.ZodObject | undefined, place: 'path' | 'query') =>
  (Object.entries(schema?.shape ?? {}) as [string, z.ZodType][]).map(([name, value]) => ({
    name,
    in: place,
    required: place === 'path' || !value.safeParse(undefined).success,
    schema: jsonSchema(value, 'input'),
  }));

function described({ method, path, summary, entry, params, query, body, answer, status = 200 }: Operation) {
  const content =
    answer === null ? {} : typeof answer === 'string' ? { content: { [answer]: {} } } : json(answer, 'output');
  const isVersioned = path.startsWith('/api/sync/pu') || path.startsWith('/api/extension/');
  const version = {
    name: PROTOCOL_HEADER,
    in: 'header',
    required: true,
    schema: { type: 'integer', const: PROTOCOL },
  };
  return {
    operationId: `${method} ${path}`,
    summary,
    security: entry === 'anybody' ? [] : [{ [entry]: [] }],
    parameters: [...parameters(params, 'path'), ...parameters(query, 'query'), ...(isVersioned ? [version] : [])],
    ...(body ? { requestBody: { required: true, ...json(body, 'input') } } : {}),
    responses: {
      [status]: { description: summary, ...content },
      default: {
        description: 'What went wrong, in words (RFC 9457)',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

/** The API as OpenAPI 3.1 describes it (spec.openapis.org/oas/v3.1.1), made of the schemas that its routes parse. */
export function openApi() {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const operation of OPERATIONS)
    paths[operation.path] = { ...paths[operation.path], [operation.method]: described(operation) };
  return {
    openapi: '3.1.1',
    info: {
      title: 'Dorvel',
      version: String(PROTOCOL),
      description: 'A library of its reader’s own. Changes go by /api/sync/push, one by one refused or taken.',
      license: { name: 'GPL-3.0-or-later', identifier: 'GPL-3.0-or-later' },
    },
    servers: [{ url: '/' }],
    paths,
    components: {
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'dorvel_session' },
        extension: { type: 'http', scheme: 'bearer' },
      },
      schemas: { Problem: jsonSchema(Problem, 'output') },
    },
  };
}

/** Serves the description; it tells nothing of any library. */
export function openApiRoutes(): Router {
  const router = Router();
  const made = JSON.stringify(openApi());
  router.get('/openapi.json', (_request, response) => {
    response.type('application/json').send(made);
  });
  return router;
}
