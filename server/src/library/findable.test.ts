import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Copy, type Item, NEVER, type Note } from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import { newItem, noteKind } from '@dorvel/core/records';
import {
  createSearchIndex,
  factsOf,
  find,
  type ItemFacts,
  itemTerms,
  notesByItem,
  readQuery,
} from '@dorvel/core/search';
import { noteFrom, pageFrom } from '@dorvel/core/testing';
import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { type Database, openDatabase } from '../db/open';
import { findables } from '../db/schema';
import { findableLibrary, putMissingFindables } from './findable';
import { libraryOf } from './library';

const NOW = Date.UTC(2026, 10, 24);
let folder: string;
let database: Database;

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
});
afterAll(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

interface Entry {
  title: string;
  body: string;
  note?: string;
  tags?: string[];
  language?: string;
  daysAgo?: number;
}

/** An account's library on the server and on a device that has all of it. */
async function bothPlaces() {
  const made = await accountRepository(database, () => NOW).create(`${uuidv7()}@x.example`, 'A', 'long enough words');
  if (!made) throw new Error('not made');
  const library = libraryOf(database, made.id);
  const onServer = findableLibrary(database, made.id);
  const onDevice = { index: createSearchIndex(), facts: new Map<string, ItemFacts>() };

  async function put({ title, body, note = '', tags = [], language = 'en', daysAgo = 0 }: Entry, id = uuidv7()) {
    const savedAt = NOW - daysAgo * 86_400_000;
    const item = newItem({
      type: 'save',
      id: uuidv7(),
      itemId: id,
      address: `https://x.example/${id}`,
      savedAt,
      stamp: NEVER,
    });
    const copy: Copy = {
      id: uuidv7(),
      itemId: id,
      madeAt: savedAt,
      title,
      language,
      hash: null,
      tree: {
        type: 'root',
        children: [{ type: 'element', tagName: 'p', properties: {}, children: [{ type: 'text', value: body }] }],
      },
    };
    item.capture.page = pageFrom({ title, language, minutes: 1, copyId: copy.id });
    item.tags = Object.fromEntries(tags.map((tag) => [tag.toLowerCase(), { value: tag, at: NEVER }]));
    const own = noteFrom({ ...ownNote.ofItem(id), text: note });
    await keep(item, copy, own);
    return item;
  }
  async function keep(item: Item, copy: Copy, note: Note) {
    await library.change(async (write) => {
      await write.putCopy(copy);
      await write.put(item);
      await write.putRecord(noteKind, note);
    });
    const notes = notesByItem([note]).get(item.id);
    const facts = factsOf(item, notes !== undefined);
    if (facts) onDevice.facts.set(item.id, facts);
    onDevice.index.put(item.id, itemTerms(item, copy, notes));
  }
  const ask = (written: string, scope: 'all' | 'articles' | 'writing' = 'all', typing = false) => {
    const query = readQuery(written, { now: NOW, zoneMinutes: 0, typing });
    return {
      device: () => find(query, scope, onDevice.index, onDevice.facts, NOW),
      server: async () => find(query, scope, onServer.source, await onServer.facts(), NOW),
    };
  };
  return { library, onServer, put, ask };
}

const titles = ['Larch or oak', 'The tide', 'Brown water', '潮の音', 'Die Fähre'];
const words = [
  'tide',
  'tides',
  'larch',
  'oak',
  'oaks',
  'water',
  'brown',
  'the',
  'fähre',
  '潮の音',
  'dredging',
  'harbour',
];
const entry = fc.record({
  title: fc.constantFrom(...titles),
  body: fc.array(fc.constantFrom(...words), { maxLength: 30 }).map((each) => each.join(' ')),
  note: fc.array(fc.constantFrom(...words), { maxLength: 3 }).map((each) => each.join(' ')),
  tags: fc.subarray(['Tides', 'tides/local', 'wood']),
  language: fc.constantFrom('en', 'de', 'ja'),
  daysAgo: fc.integer({ min: 0, max: 400 }),
});
const queryPart = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom(...words, 'harbuor', 'dregding', 'zeppelin', 'wat*', 'dredgin') },
  fc.tuple(fc.constantFrom(...words), fc.constantFrom(...words)).map((pair) => `"${pair.join(' ')}"`),
  fc.constantFrom(...words).map((word) => `-${word}`),
  fc.constantFrom('tag:tides', 'lang:de', 'saved:2026', 'is:noted', '潮'),
);

it('the same query finds the same items in the same order on the server and on a device', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(entry, { minLength: 1, maxLength: 14 }),
      fc.array(
        fc.array(queryPart, { minLength: 1, maxLength: 3 }).map((parts) => parts.join(' ')),
        { minLength: 6, maxLength: 6 },
      ),
      fc.constantFrom('all' as const, 'articles' as const, 'writing' as const),
      fc.boolean(),
      async (entries, queries, scope, typing) => {
        const { put, ask } = await bothPlaces();
        const ids: string[] = [];
        for (const each of entries) ids.push((await put(each)).id);
        // Some are changed afterwards: what they were found by before counts no more.
        for (const id of ids.slice(0, 3)) await put({ title: 'Larch or oak', body: 'water and oak' }, id);
        for (const written of queries) {
          const asked = ask(written, scope, typing);
          const [device, server] = [await asked.device(), await asked.server()];
          expect({ written, ...server }).toEqual({ written, ...device });
        }
      },
    ),
    { numRuns: 25 },
  );
});

it('an item is found at the moment that its text is there, and by its tags when they are given', async () => {
  const { put, ask, library } = await bothPlaces();
  const found = async (written: string) => (await ask(written).server()).hits.map(({ id }) => id);
  expect(await found('zeppelin')).toEqual([]);
  const { id } = await put({ title: 'Skerrow', body: 'A zeppelin passed.' });
  expect(await found('zeppelin')).toEqual([id]);
  await library.change(async (write) => {
    const item = await write.item(id);
    if (item) await write.put({ ...item, tags: { airships: { value: 'Airships', at: NEVER } } });
  });
  expect(await found('airships')).toEqual([id]);
  expect(await found('tag:airships zeppelin')).toEqual([id]);
});

it('an account finds nothing of another, and one that has saved nothing finds nothing', async () => {
  const mine = await bothPlaces();
  const other = await bothPlaces();
  await mine.put({ title: 'Mine', body: 'zeppelin' });
  for (const written of ['zeppelin', 'zepelin', 'mine -oak', ''])
    expect((await other.ask(written).server()).hits).toEqual([]);
});

it('what was saved before there was finding is made findable once', async () => {
  const { put, ask } = await bothPlaces();
  const { id } = await put({ title: 'Old', body: 'gutta-percha' });
  await database.write((tx) => tx.delete(findables));
  expect((await ask('percha').server()).hits).toEqual([]);
  expect(await putMissingFindables(database)).toBeGreaterThan(0);
  expect((await ask('percha').server()).hits.map((hit) => hit.id)).toEqual([id]);
  expect(await putMissingFindables(database)).toBe(0);
});

it('finds an item by what was written on a passage of it, as long as it stands there', async () => {
  const { library, onServer, put } = await bothPlaces();
  const item = await put({ title: 'Plain', body: 'A text of the harbour.' });
  const note = noteFrom({
    ...ownNote.ofHighlight({ id: uuidv7(), itemId: item.id }),
    text: 'Ask the surveyor about this.',
  });
  const found = async () => {
    const query = readQuery('surveyor', { now: NOW, zoneMinutes: 0, typing: false });
    const { by, hits } = await find(query, 'writing', onServer.source, await onServer.facts(), NOW);
    return by === 'all' ? hits.map(({ id }) => id) : [];
  };
  const isNoted = async () => (await onServer.facts()).get(item.id)?.noted;
  expect(await found()).toEqual([]);
  expect(await isNoted()).toBe(false);
  await library.change((write) => write.putRecord(noteKind, note));
  expect(await found()).toEqual([item.id]);
  expect(await isNoted()).toBe(true);
  // What else changes about the item does not lose it.
  await library.change(async (write) => {
    const now = await write.item(item.id);
    if (now)
      await write.put({
        ...now,
        choices: { ...now.choices, title: { value: 'Renamed', at: '000000002-0000-a' } },
      });
  });
  expect(await found()).toEqual([item.id]);
  const removed = { ...note.choices, removed: { value: true, at: '000000001-0000-a' } };
  await library.change((write) => write.putRecord(noteKind, { ...note, choices: removed }));
  expect(await found()).toEqual([]);
  expect(await isNoted()).toBe(false);
});
