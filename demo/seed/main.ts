import http from 'node:http';
import { canonicalAddress } from '@dorvel/core/address';
import { anchorAt, passageAt } from '@dorvel/core/highlight';
import { Copy, Item, joinSpans, Setup, spanOf, tagKey, type Carrier } from '@dorvel/core/model';
import { PullResponse, PUSH_LIMIT, PushResponse } from '@dorvel/core/sync';
import type { Mutation } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { plainText, wordStarts } from '@dorvel/core/text';
import { v5 as uuidv5, v7 as uuidv7 } from 'uuid';
import { smallWebAddresses } from '../small-web/server';
import { FOLLOWED, SEED, type SeedEntry } from './plan';

/**
 * Fills the demo's account by doing what a reader does, over the same routes: saving addresses, waiting for the
 * captures, reading some of them. Does nothing when the library has something in it.
 */
const server = process.env.DORVEL_ADDRESS ?? 'http://127.0.0.1:4800';
const smallWebPort = Number(process.env.SMALL_WEB_PORT ?? 4810);
const HOUR_MS = 60 * 60 * 1000;
const DAY_MS = 24 * HOUR_MS;
const PATIENCE_MS = 120_000;

let cookie = '';
async function call(method: string, path: string, body?: unknown): Promise<unknown> {
  const response = await fetch(`${server}/api${path}`, {
    method,
    headers: { cookie, 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (!response.ok)
    throw new Error(`${method} ${path} answered ${response.status}: ${await response.text()}`);
  cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
  return response.json();
}

async function everything(): Promise<Item[]> {
  const items: Item[] = [];
  for (let after = 0, more = true; more;) {
    const page = PullResponse.parse(await call('GET', `/sync/pull?after=${after}`));
    items.push(...page.records.items);
    ({ cursor: after, more } = page);
  }
  return items;
}

async function push(mutations: Mutation[]): Promise<void> {
  for (let at = 0; at < mutations.length; at += PUSH_LIMIT) {
    const { results } = PushResponse.parse(
      await call('POST', '/sync/push', { mutations: mutations.slice(at, at + PUSH_LIMIT) }),
    );
    const refused = results.find((result) => result.outcome !== 'applied');
    if (refused) throw new Error(`the seed was not taken: ${JSON.stringify(refused)}`);
  }
}

const addresses = new Map(smallWebAddresses(smallWebPort).map(({ slug, address }) => [slug, address]));
function addressOf({ page }: SeedEntry): string {
  const [host, path] = page.split(':');
  const address = path ? `http://${host}.localhost:${smallWebPort}${path}` : addresses.get(page);
  if (!address) throw new Error(`the small web has no ${page}`);
  return address;
}

/** Stamps as a device would have made them on the day. */
function stampsFrom(instant: number): () => string {
  const clock = createClock('seed', () => instant);
  return () => clock.next();
}

async function seed(): Promise<void> {
  const { demo } = Setup.parse(await call('GET', '/setup'));
  if (!demo) throw new Error('this server was not started as the demo');
  await call('POST', '/session', { mail: demo.mail, passphrase: demo.passphrase });
  if ((await everything()).length > 0) return;

  console.log(`Filling the demo library with ${SEED.length} pages of the small web…`);
  const started = Date.now();
  const planned = SEED.map((entry, index) => ({
    entry,
    itemId: uuidv7(),
    savedAt: started - entry.savedDaysAgo * DAY_MS - (index % 9) * HOUR_MS,
  }));
  await push(
    planned.map(({ entry, itemId, savedAt }) => ({
      type: 'save',
      id: uuidv7(),
      itemId,
      address: addressOf(entry),
      savedAt,
      stamp: stampsFrom(savedAt)(),
    })),
  );
  const items = await settled();
  const changes: Mutation[] = [];
  let rank = 0;
  for (const { entry, itemId, savedAt } of planned) {
    const item = items.get(itemId);
    if (!item) throw new Error(`${entry.page} is not in the library`);
    const decidedAt = savedAt + 20 * HOUR_MS;
    const lastInAt = entry.lastInDaysAgo === undefined ? decidedAt : started - entry.lastInDaysAgo * DAY_MS;
    if (entry.read) changes.push(...(await reading(item, entry, lastInAt)));
    const marked = stampsFrom(decidedAt);
    if (entry.tags)
      changes.push({
        type: 'tag',
        id: uuidv7(),
        itemId,
        stamp: marked(),
        set: Object.fromEntries(entry.tags.map((tag) => [tagKey(tag), tag])),
      });
    if (entry.note)
      changes.push({ type: 'choose', id: uuidv7(), itemId, stamp: marked(), set: { note: entry.note } });
    if (entry.marks) changes.push(...(await marking(item, entry.marks, lastInAt)));
    if (entry.cards) changes.push(...(await carding(item, entry.cards, lastInAt)));
    for (const note of entry.notes ?? []) changes.push(writing(itemId, note, lastInAt, started));
    if (entry.stage === 'inbox') continue;
    const done = entry.stage === 'finished' || entry.read === 1;
    const stamps = stampsFrom(done ? lastInAt : decidedAt);
    changes.push({
      type: 'choose',
      id: uuidv7(),
      itemId,
      stamp: stamps(),
      set: {
        stage: entry.stage,
        ...(entry.stage === 'queue' ? { queueRank: ++rank } : {}),
        ...(done ? { finishedAt: lastInAt } : {}),
        ...(entry.comeBackInDays === undefined
          ? {}
          : { comeBackOn: dayOf(started + entry.comeBackInDays * DAY_MS) }),
      },
    });
  }
  await push(changes);
  for (const { entry, itemId } of planned) await turn(entry, itemId);
  await followAll();
}

/** The feeds that she follows, from a day when all of them still worked. */
async function followAll(): Promise<void> {
  const next = stampsFrom(Date.now());
  await push(
    FOLLOWED.flatMap(({ address, set }): Mutation[] => {
      const url = `http://${address.replace(':', `.localhost:${smallWebPort}`)}`;
      const feedId = uuidv5(canonicalAddress(url), uuidv5.URL);
      return [
        { type: 'follow', id: uuidv7(), feedId, stamp: next(), address: url, followedAt: Date.now() },
        ...(set ? [{ type: 'feed' as const, id: uuidv7(), feedId, stamp: next(), set }] : []),
      ];
    }),
  );
}

/** The page turns, and she fetches it again, as often as the plan says. */
async function turn(entry: SeedEntry, itemId: string): Promise<void> {
  const address = new URL(addressOf(entry));
  for (let turns = 0; turns < (entry.turns ?? 0); turns++) {
    await new Promise<void>((resolve, reject) => {
      // Not every system resolves names under .localhost: the host is named in the header.
      const { port, host, pathname } = address;
      const headers = { host };
      http
        .request(
          { hostname: '127.0.0.1', port, path: `${pathname}/next`, method: 'POST', headers },
          (answer) => answer.resume().on('end', resolve),
        )
        .on('error', reject)
        .end();
    });
    await push([{ type: 'refetch', id: uuidv7(), itemId, stamp: stampsFrom(Date.now())() }]);
    await settled();
  }
}

/** This machine's calendar day of an instant. */
function dayOf(instant: number): string {
  const day = new Date(instant);
  return `${day.getFullYear()}-${String(day.getMonth() + 1).padStart(2, '0')}-${String(day.getDate()).padStart(2, '0')}`;
}

/** What a device records of a reading: how far, what of it by ear, and the sittings that it took. */
async function reading(
  item: Item,
  { read = 0, heard = [] }: SeedEntry,
  lastInAt: number,
): Promise<Mutation[]> {
  const { page } = item.capture;
  if (!page) throw new Error(`${item.address} has no text to read`);
  const copy = Copy.parse(await call('GET', `/copies/${page.copyId}`));
  const plain = plainText(copy.tree);
  const starts = wordStarts(plain.text, copy.language);
  const offset = read >= 1 ? plain.text.length : (starts[Math.floor(read * starts.length)] ?? 0);
  const position = anchorAt(plain, starts, offset);
  const next = stampsFrom(lastInAt);
  const byEar = heard.reduce((sum, [from, to]) => sum + to - from, 0);
  const sitting = (by: Carrier, fraction: number, endedAt: number): Mutation[] => {
    if (fraction < 0.01) return [];
    const seconds = Math.round(fraction * page.minutes * 60 * (by === 'eyes' ? 1.1 : 1.3));
    const startedAt = endedAt - seconds * 1000;
    const activity = {
      id: uuidv7(),
      itemId: item.id,
      startedAt,
      day: dayOf(startedAt),
      by,
      seconds,
      words: Math.round(fraction * page.wordCount),
    };
    return [{ type: 'activity', id: uuidv7(), itemId: item.id, stamp: next(), activity }];
  };
  return [
    {
      type: 'progress',
      id: uuidv7(),
      itemId: item.id,
      stamp: next(),
      furthest: position.fraction,
      position,
      heard: heard.map(([from, to]) => spanOf(from, to)).reduce(joinSpans, []),
    },
    ...sitting('eyes', read - byEar, lastInAt - 4 * HOUR_MS),
    ...sitting('ears', byEar, lastInAt),
  ];
}

/** What she marked, as a device records it. @throws when the text does not have the words */
async function marking(
  item: Item,
  marks: NonNullable<SeedEntry['marks']>,
  markedAt: number,
): Promise<Mutation[]> {
  const copyId = item.capture.page?.copyId ?? '';
  const { text } = plainText(Copy.parse(await call('GET', `/copies/${copyId}`)).tree);
  const next = stampsFrom(markedAt);
  return marks.flatMap(({ words, kind, note }): Mutation[] => {
    const start = text.indexOf(words);
    if (start === -1) throw new Error(`${item.address} does not say “${words}”`);
    const highlightId = uuidv7();
    const base = () => ({ id: uuidv7(), itemId: item.id, highlightId, stamp: next() });
    const passage = passageAt(text, start, start + words.length, copyId);
    return [
      { ...base(), type: 'mark', madeAt: markedAt, kind, passage },
      ...(note ? [{ ...base(), type: 'change-mark' as const, set: { note } }] : []),
    ];
  });
}

/** The cards that she made, as a device records them. */
async function carding(
  item: Item,
  cards: NonNullable<SeedEntry['cards']>,
  madeAt: number,
): Promise<Mutation[]> {
  const copyId = item.capture.page?.copyId ?? '';
  const { text } = plainText(Copy.parse(await call('GET', `/copies/${copyId}`)).tree);
  const next = stampsFrom(madeAt);
  return cards.map(({ words, front, back = '' }): Mutation => {
    const start = text.indexOf(words);
    if (start === -1) throw new Error(`${item.address} does not say “${words}”`);
    const passage = passageAt(text, start, start + words.length, copyId);
    return {
      type: 'card',
      id: uuidv7(),
      cardId: uuidv7(),
      madeAt,
      source: { itemId: item.id, highlightId: null, passage },
      set: { front, back },
      stamp: next(),
    };
  });
}

/** A note of hers on an item. */
function writing(
  itemId: string,
  note: NonNullable<SeedEntry['notes']>[number],
  madeAt: number,
  today: number,
): Mutation {
  const dueOn = note.toDo === undefined ? null : dayOf(today + note.toDo * DAY_MS);
  return {
    type: 'write',
    id: uuidv7(),
    noteId: uuidv7(),
    madeAt,
    noteItemId: itemId,
    on: null,
    set: { text: note.text, task: dueOn === null ? 'none' : 'open', dueOn },
    stamp: stampsFrom(madeAt)(),
  };
}

/** All items, once no capture is under way any more. */
async function settled(): Promise<Map<string, Item>> {
  for (const deadline = Date.now() + PATIENCE_MS; Date.now() < deadline;) {
    const items = await everything();
    if (items.every(({ capture }) => capture.state === 'arrived' || capture.state === 'failed'))
      return new Map(items.map((item) => [item.id, item]));
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  throw new Error('the captures did not come to an end');
}

await seed();
