import { canonicalAddress, readAddress } from '@dorvel/core/address';
import {
  type Account,
  CopyParams,
  EchoesAnswer,
  EchoesAsked,
  ExtensionAccount,
  FoundElsewhere,
  hasText,
  type Item,
  KnownPage,
  MarkedAddresses,
  PageAsked,
  tagKey,
  WordsAsked,
} from '@dorvel/core/model';
import { PLAINLY_RELATED } from '@dorvel/core/nearness';
import { Mutation } from '@dorvel/core/records';
import { find, readQuery } from '@dorvel/core/search';
import { type HybridClock, PROTOCOL_HEADER, PushRequest, PushResponse } from '@dorvel/core/sync';
import { reasonForTag } from '@dorvel/core/wording';
import cors from 'cors';
import { type RequestHandler, Router } from 'express';
import type { Tokens } from '../accounts/tokens';
import type { echoSource } from '../library/echoes';
import type { FindableLibrary } from '../library/findable';
import type { Library } from '../library/library';
import type { RelatedLibrary } from '../library/related';
import { takePush } from '../library/take-mutations';
import { accountOf, refuseOldClients } from './guard';
import { jsonBody } from './json-body';
import { HttpProblem, notFound } from './problem';
import { limitRate } from './tries';

interface ExtensionParts {
  tokens: Tokens;
  library(accountId: string): Library;
  findable(accountId: string): FindableLibrary;
  related(accountId: string): RelatedLibrary;
  echoes(accountId: string): ReturnType<typeof echoSource>;
  clockOf(accountId: string): HybridClock;
  epoch: string;
  bell: { ring(accountId: string): void };
  wakeRunner(): void;
}

const MAX_RELATED = 3;
const MAX_SUGGESTED = 2;
const MAX_LAST_TAGS = 4;
const MAX_DOSSIERS = 6;
/** The tags used last are looked for in this many items. */
const LOOKED_AT = 200;
const MAX_FOUND = 3;

/**
 * What a browser's extension needs: to save and to change what it saved, and to see what the library has on the page
 * before it. Who holds a token of that scope is let in, from any origin; no cookie counts, so that a foreign page
 * gains nothing by asking.
 */
export function extensionRoutes(parts: ExtensionParts): Router {
  const router = Router();
  router.use(
    cors({ origin: '*', allowedHeaders: ['authorization', 'content-type', PROTOCOL_HEADER], maxAge: 3600 }),
    limitRate(600, 1),
    refuseOldClients,
    holderOf(parts.tokens),
    jsonBody('8mb'),
  );

  router.get('/account', (_request, response) => {
    const account: Account = accountOf(response);
    response.json(ExtensionAccount.parse({ account }));
  });

  router.get('/page', async (request, response) => {
    const { address } = PageAsked.parse(request.query);
    const { id } = accountOf(response);
    const reading = readAddress(address);
    const item = reading.ok ? await parts.library(id).itemAt(canonicalAddress(reading.address)) : undefined;
    response.json(await known(item ?? null, id, parts));
  });

  router.get('/items/:id', async (request, response) => {
    const { id } = CopyParams.parse(request.params);
    const account = accountOf(response);
    const library = parts.library(account.id);
    const item = await library.item(id);
    const canonical = item?.capture.duplicateOf ? await library.item(item.capture.duplicateOf) : item;
    if (!canonical) throw notFound('That item');
    response.json(await known(canonical, account.id, parts));
  });

  router.get('/marked', async (_request, response) => {
    const addresses = await parts.library(accountOf(response).id).markedAddresses();
    response.json(MarkedAddresses.parse({ addresses }));
  });

  router.get('/echoes', async (request, response) => {
    const { after } = EchoesAsked.parse(request.query);
    const told = await parts.echoes(accountOf(response).id).after(after);
    response.json(EchoesAnswer.parse({ epoch: parts.epoch, ...told }));
  });

  router.get('/find', async (request, response) => {
    const { words } = WordsAsked.parse(request.query);
    const { id } = accountOf(response);
    const source = parts.findable(id);
    const now = Date.now();
    const facts = await source.facts();
    const query = readQuery(words, { typing: false, zoneMinutes: 0, now });
    const { by, hits } = await find(query, 'all', source.source, facts, now);
    // Some of the words, or words like them, are too little to speak up for on somebody else's page.
    const sure = by === 'all' ? hits : [];
    const items = await Promise.all(sure.slice(0, MAX_FOUND).map((hit) => parts.library(id).item(hit.id)));
    response.json(FoundElsewhere.parse({ count: sure.length, items: items.filter((item) => item !== undefined) }));
  });

  router.post('/push', async (request, response) => {
    const { mutations } = PushRequest.parse(request.body);
    const library = parts.library(accountOf(response).id);
    const refusal = (mutation: unknown) => (isForExtensions(mutation) ? null : 'An extension may not do that.');
    const tools = { clock: parts.clockOf(library.accountId), now: Date.now };
    const taken = await takePush(library, { mutations, refusal }, tools);
    parts.bell.ring(library.accountId);
    parts.wakeRunner();
    response.json(PushResponse.parse({ ...taken, now: Date.now(), epoch: parts.epoch }));
  });

  return router;
}

/** Lets only holders of an extension's token pass. */
function holderOf(tokens: Tokens): RequestHandler {
  return async (request, response, next) => {
    const secret = /^Bearer ([\w-]{1,200})$/.exec(request.get('authorization') ?? '')?.[1];
    const used = secret ? await tokens.use(secret, 'extension') : null;
    if (!used)
      throw new HttpProblem(
        401,
        'token',
        'Not paired',
        'The pairing was revoked, or is with another library. Pair the extension again; what waits in it is kept.',
      );
    response.locals.account = used.account;
    next();
  };
}

/** What the panel offers to change, and no more: a token must not empty a library, nor change what was read. */
const CHOICES = new Set(['stage', 'title', 'howMuch', 'queueRank', 'comeBackOn']);

function isForExtensions(input: unknown): boolean {
  const mutation = Mutation.safeParse(input).data;
  // What cannot be read is refused with its reason where all are.
  if (!mutation) return true;
  if (mutation.type === 'choose') return Object.keys(mutation.set).every((field) => CHOICES.has(field));
  // Of notes, those that items have a field for.
  if (mutation.type === 'write') return mutation.noteId === mutation.noteItemId;
  // Something is put into a dossier, or taken out again; nothing else of one.
  if (mutation.type === 'entry') {
    const fields = Object.keys(mutation.set).every((field) => field === 'rank' || field === 'removed');
    return fields && Object.keys(mutation.cells).length === 0 && mutation.part.kind !== 'note';
  }
  return ['save', 'provide', 'tag', 'refetch', 'mark', 'change-mark', 'silence'].includes(mutation.type);
}

async function known(item: Item | null, accountId: string, parts: ExtensionParts): Promise<KnownPage> {
  const library = parts.library(accountId);
  const relating = parts.related(accountId);
  // A text that did not come through is near to others of its kind, which says nothing.
  const near =
    item && hasText(item)
      ? (await relating.related(item.id, MAX_RELATED)).filter(({ nearness }) => nearness >= PLAINLY_RELATED)
      : [];
  const suggested = item && hasText(item) ? await relating.suggestedTags(item, MAX_SUGGESTED) : [];
  const others = new Map(
    (
      await Promise.all(
        [...near.map(({ id }) => id), ...suggested.flatMap(({ because }) => because.slice(0, 1))].map((id) =>
          library.item(id),
        ),
      )
    ).flatMap((other) => (other ? [[other.id, other] as const] : [])),
  );
  return KnownPage.parse({
    item,
    related: near.flatMap(({ id, shared }) => {
      const other = others.get(id);
      return other ? [{ item: other, shared }] : [];
    }),
    suggestedTags: suggested.map((each) => ({
      tag: each.tag,
      reason: reasonForTag(each, [...others.values()]),
    })),
    lastTags: lastTags(await library.changedLast(LOOKED_AT)),
    queueEnd: await library.queueEnd(),
    dossiers: await library.dossiersLast(MAX_DOSSIERS),
    highlights: item ? await library.highlightsOf(item.id) : [],
    note: item ? await library.ownNoteOf(item.id) : null,
  });
}

/** The tags that the reader put on last, the latest first. */
function lastTags(items: readonly Item[]): string[] {
  const latest = new Map<string, { tag: string; at: string }>();
  for (const { tags } of items)
    for (const { value, at } of Object.values(tags)) {
      if (value === null) continue;
      const key = tagKey(value);
      if ((latest.get(key)?.at ?? '') < at) latest.set(key, { tag: value, at });
    }
  return [...latest.values()]
    .sort((a, b) => (a.at < b.at ? 1 : -1))
    .slice(0, MAX_LAST_TAGS)
    .map(({ tag }) => tag);
}
