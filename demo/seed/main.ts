import http from 'node:http';
import { canonicalAddress } from '@dorvel/core/address';
import { picturesInText, ranksAt } from '@dorvel/core/dossier';
import { anchorAt, passageAt } from '@dorvel/core/highlight';
import {
  type Carrier,
  type EntryChoices,
  type EntryPart,
  type Item,
  joinSpans,
  Setup,
  spanOf,
  tagKey,
} from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import type { Mutation } from '@dorvel/core/records';
import { plainText, wordStarts } from '@dorvel/core/text';
import { v5 as uuidv5, v7 as uuidv7 } from 'uuid';
import { smallWebAddresses } from '../small-web/server';
import { fillPast } from './past';
import { keepPictures } from './pictures';
import { DOSSIERS, FOLLOWED, LONG_READS, SEED, type SeedDossier, type SeedEntry } from './plan';
import { call, copyOf, DAY_MS, dayOf, everything, HOUR_MS, madeAt, push, settled, smallWebPort, until } from './reader';

/**
 * Fills the demo's account by doing what a reader does, over the same routes: saving addresses, waiting for the
 * captures, reading some of them. Does nothing when the library has something in it.
 */
/** Without the two years before and the long texts there is less to wait for: the tests' readers have what they need. */
const withPast = process.env.DORVEL_DEMO_PAST !== '0';
const addresses = new Map(smallWebAddresses(smallWebPort).map(({ slug, address }) => [slug, address]));
function addressOf({ page }: SeedEntry): string {
  const [host, path] = page.split(':');
  const address = path ? `http://${host}.localhost:${smallWebPort}${path}` : addresses.get(page);
  if (!address) throw new Error(`the small web has no ${page}`);
  return address;
}

async function seed(): Promise<void> {
  const { demo } = Setup.parse(await call('GET', '/setup'));
  if (!demo) throw new Error('this server was not started as the demo');
  await call('POST', '/session', { mail: demo.mail, passphrase: demo.passphrase });
  if ((await everything()).items.length > 0) return;

  console.log(`Filling the demo library with ${SEED.length} pages of the small web…`);
  const started = Date.now();
  const planned = [...SEED, ...(withPast ? LONG_READS : [])].map((entry, index) => {
    const savedAt = started - entry.savedDaysAgo * DAY_MS - (index % 9) * HOUR_MS;
    return { entry, savedAt, save: madeAt(savedAt).save({ address: addressOf(entry) }) };
  });
  await push(planned.map(({ save }) => save));
  const items = await settled();
  const changes: Mutation[] = [];
  let rank = 0;
  for (const { entry, save, savedAt } of planned) {
    const { itemId } = save;
    const item = items.get(itemId);
    if (!item) throw new Error(`${entry.page} is not in the library`);
    const decidedAt = savedAt + 20 * HOUR_MS;
    const lastInAt = entry.lastInDaysAgo === undefined ? decidedAt : started - entry.lastInDaysAgo * DAY_MS;
    if (entry.read) changes.push(...(await reading(item, entry, lastInAt)));
    const decided = madeAt(decidedAt);
    if (entry.tags) changes.push(decided.tag(itemId, Object.fromEntries(entry.tags.map((tag) => [tagKey(tag), tag]))));
    if (entry.note) changes.push(decided.note(ownNote.ofItem(itemId), { text: entry.note }));
    if (entry.marks) changes.push(...(await marking(item, entry.marks, lastInAt)));
    if (entry.cards) changes.push(...(await carding(item, entry.cards, lastInAt)));
    for (const note of entry.notes ?? []) changes.push(writing(itemId, note, lastInAt, started));
    if (entry.stage === 'inbox') continue;
    const done = entry.stage === 'finished' || entry.read === 1;
    changes.push(
      madeAt(done ? lastInAt : decidedAt).choose(itemId, {
        stage: entry.stage,
        ...(entry.stage === 'queue' ? { queueRank: ++rank } : {}),
        ...(done ? { finishedAt: lastInAt } : {}),
        ...(entry.passedOver === undefined
          ? {}
          : { passedOver: { times: entry.passedOver, lastOn: dayOf(started - 8 * DAY_MS) } }),
        ...(entry.comeBackInDays === undefined ? {} : { comeBackOn: dayOf(started + entry.comeBackInDays * DAY_MS) }),
      }),
    );
  }
  await push(changes);
  for (const { entry, save } of planned) await turn(entry, save.itemId);
  const pictures = await firstPictures(items);
  await push(
    DOSSIERS.flatMap((dossier, n) =>
      collecting(dossier, started - (DOSSIERS.length - n) * DAY_MS, changes, items, pictures),
    ),
  );
  await followAll();
  if (!withPast) return;
  await fillPast(started);
  await keepPictures(started);
}

/** The first picture in each text that has one, by item. */
async function firstPictures(items: ReadonlyMap<string, Item>): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  for (const item of items.values()) {
    const { id, capture } = item;
    if (!capture.page?.copyId || capture.page.pictureCount === 0) continue;
    const { tree } = await copyOf(item);
    const [first] = picturesInText(tree);
    if (first) found.set(id, first.hash);
  }
  return found;
}

/** A dossier of hers, as a device records it. @throws when something of it is not in the library */
function collecting(
  { set, lead, columns = {}, parts }: SeedDossier,
  madeOn: number,
  changes: readonly Mutation[],
  items: ReadonlyMap<string, Item>,
  pictures: ReadonlyMap<string, string>,
): Mutation[] {
  const make = madeAt(madeOn);
  const itemOf = (slug: string): Item => {
    const address = canonicalAddress(addresses.get(slug) ?? '');
    const item = [...items.values()].find(({ capture }) => capture.addressKey === address);
    if (!item) throw new Error(`${slug} is not in the library`);
    return item;
  };
  const pictureOf = (slug: string): string => {
    const hash = pictures.get(itemOf(slug).id);
    if (!hash) throw new Error(`${slug} has no picture`);
    return hash;
  };
  const dossier = make.dossier({ ...set, ...(lead ? { lead: pictureOf(lead) } : {}) });
  dossier.columns = Object.fromEntries(Object.entries(columns).map(([key, title]) => [key, { title, hidden: false }]));
  const { ranks } = ranksAt([], 0, parts.length);
  return [
    dossier,
    ...parts.flatMap((part, n): Mutation[] => {
      const rank = ranks[n] ?? '';
      const put = (...[what, more]: [EntryPart, Partial<EntryChoices>?]) =>
        make.entry(dossier.dossierId, what, { rank, ...more });
      if ('item' in part) {
        const entry = put({ kind: 'item', itemId: itemOf(part.item).id });
        entry.cells = part.cells ?? {};
        return [entry];
      }
      if ('heading' in part) return [put({ kind: 'heading' }, { text: part.heading, nested: part.nested ?? false })];
      if ('search' in part) return [put({ kind: 'search' }, { text: part.search })];
      if ('pictureOf' in part) {
        const { id: itemId } = itemOf(part.pictureOf);
        return [put({ kind: 'picture', itemId, hash: pictureOf(part.pictureOf) }, { text: part.caption })];
      }
      if ('note' in part) {
        const note = make.note({ itemId: null, on: { kind: 'nothing' } }, { text: part.note });
        return [note, put({ kind: 'note', noteId: note.noteId }, { purpose: part.purpose })];
      }
      const mark = changes.find((each) => each.type === 'mark' && each.passage.exact === part.passage);
      if (mark?.type !== 'mark') throw new Error(`nothing is marked that says “${part.passage}”`);
      return [put({ kind: 'passage', itemId: mark.itemId, highlightId: mark.highlightId })];
    }),
  ];
}

/** The feeds that she follows, from a day when all of them still worked; each of them looked at once. */
async function followAll(): Promise<void> {
  const make = madeAt(Date.now());
  await push(
    FOLLOWED.flatMap(({ address, set }): Mutation[] => {
      const url = `http://${address.replace(':', `.localhost:${smallWebPort}`)}`;
      const feedId = uuidv5(canonicalAddress(url), uuidv5.URL);
      return [make.follow(feedId, url), ...(set ? [make.changeFeed(feedId, set)] : [])];
    }),
  );
  await until('the feeds were not looked at', async () => {
    const { feeds } = await everything();
    return feeds.length === FOLLOWED.length && feeds.every(({ state }) => state.checkedAt !== null) ? feeds : null;
  });
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
        .request({ hostname: '127.0.0.1', port, path: `${pathname}/next`, method: 'POST', headers }, (answer) =>
          answer.resume().on('end', resolve),
        )
        .on('error', reject)
        .end();
    });
    await push([madeAt(Date.now()).refetch(itemId)]);
    await settled();
  }
}

/** What a device records of a reading: how far, what of it by ear, and the sittings that it took. */
async function reading(item: Item, { read = 0, heard = [] }: SeedEntry, lastInAt: number): Promise<Mutation[]> {
  const { page } = item.capture;
  if (!page) throw new Error(`${item.address} has no text to read`);
  const copy = await copyOf(item);
  const plain = plainText(copy.tree);
  const starts = wordStarts(plain.text, copy.language);
  const offset = read >= 1 ? plain.text.length : (starts[Math.floor(read * starts.length)] ?? 0);
  const position = anchorAt(plain, starts, offset);
  const make = madeAt(lastInAt);
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
    return [make.activity(activity)];
  };
  return [
    make.progress(item.id, {
      furthest: position.fraction,
      position,
      heard: heard.map(([from, to]) => spanOf(from, to)).reduce(joinSpans, []),
    }),
    ...sitting('eyes', read - byEar, lastInAt - 4 * HOUR_MS),
    ...sitting('ears', byEar, lastInAt),
  ];
}

/** What she marked, as a device records it. @throws when the text does not have the words */
async function marking(item: Item, marks: NonNullable<SeedEntry['marks']>, markedAt: number): Promise<Mutation[]> {
  const copyId = item.capture.page?.copyId ?? '';
  const { text } = plainText((await copyOf(item)).tree);
  const make = madeAt(markedAt);
  return marks.flatMap(({ words, kind, note }): Mutation[] => {
    const start = text.indexOf(words);
    if (start === -1) throw new Error(`${item.address} does not say “${words}”`);
    const highlight = make.highlight(item.id, kind, passageAt(text, start, start + words.length, copyId));
    const subject = ownNote.ofHighlight({ id: highlight.highlightId, itemId: item.id });
    return [highlight, ...(note ? [make.note(subject, { text: note })] : [])];
  });
}

/** The cards that she made, as a device records them. */
async function carding(item: Item, cards: NonNullable<SeedEntry['cards']>, cardedAt: number): Promise<Mutation[]> {
  const copyId = item.capture.page?.copyId ?? '';
  const { text } = plainText((await copyOf(item)).tree);
  const make = madeAt(cardedAt);
  return cards.map(({ words, front, back = '' }): Mutation => {
    const start = text.indexOf(words);
    if (start === -1) throw new Error(`${item.address} does not say “${words}”`);
    const passage = passageAt(text, start, start + words.length, copyId);
    return make.card({ itemId: item.id, highlightId: null, passage }, { front, back });
  });
}

/** A note of hers on an item. */
function writing(
  itemId: string,
  note: NonNullable<SeedEntry['notes']>[number],
  writtenAt: number,
  today: number,
): Mutation {
  const dueOn = note.toDo === undefined ? null : dayOf(today + note.toDo * DAY_MS);
  const task = dueOn === null ? 'none' : 'open';
  return madeAt(writtenAt).note({ itemId, on: { kind: 'item' } }, { text: note.text, task, dueOn });
}

await seed();
