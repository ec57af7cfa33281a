import type { Copy } from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import { changeMaker } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { pageFrom } from '@dorvel/core/testing';
import { v7 as uuidv7 } from 'uuid';
import type { Database } from '../db/open';
import { copies, findables, jobs, pictures, profiles } from '../db/schema';
import { eraseLetGo } from './erase';
import { findableLibrary } from './findable';
import type { Library } from './library';
import { examine } from './mend';
import { takePush } from './take-mutations';
import { openTestLibrary } from './test-library.test-data';

const DAY_MS = 86_400_000;
const START = Date.UTC(2026, 10, 1, 12);
let now = START;
const clock = createClock('test', () => now);
const make = changeMaker({ clock, newId: uuidv7, now: () => now });
let house: Awaited<ReturnType<typeof openTestLibrary>>;
let database: Database;
let library: Library;
beforeEach(async () => {
  now = START;
  house = await openTestLibrary(() => now);
  ({ database, library } = house);
});
afterEach(() => house.close());

const push = async (...mutations: object[]) => {
  const { results } = await takePush(library, { mutations }, { clock, now: () => now });
  return results;
};

/** An item with a copy that shows pictures. */
async function arrived(...hashes: string[]): Promise<string> {
  const save = make.save({ address: `https://x.example/${uuidv7()}` });
  await push(save);
  await library.change(async (write) => {
    const item = (await write.item(save.itemId))!;
    const img = (hash: string) => ({
      type: 'element',
      tagName: 'img',
      properties: { src: `/api/pictures/${hash}.webp` },
      children: [],
    });
    const copy = {
      id: uuidv7(),
      itemId: item.id,
      madeAt: now,
      title: 'T',
      language: 'en',
      hash: 'f'.repeat(64),
      tree: { type: 'root', children: hashes.map(img) },
    } as unknown as Copy;
    await write.putPictures(hashes.map((hash) => ({ hash, bytes: 1 })));
    await write.putCopy(copy);
    const page = pageFrom({
      title: 'Eelgrass',
      excerpt: 'E',
      minutes: 1,
      pictureCount: hashes.length,
      thumbnail: hashes[0] ?? null,
      copyId: copy.id,
    });
    const note = { id: copy.id, madeAt: now, hash: 'f'.repeat(64), wordCount: 1, origin: 'fetched' as const };
    await write.put({
      ...item,
      capture: { ...item.capture, revision: write.sequence, state: 'arrived', page, copies: [note] },
    });
  });
  return save.itemId;
}
const counts = async () =>
  Promise.all([copies, pictures, jobs, findables, profiles].map((table) => database.read.$count(table)));

it('what was let go is erased after 30 days, with its copies, pictures and captures, and nothing of the others', async () => {
  const [mine, shared] = ['a'.repeat(64), 'b'.repeat(64)];
  const gone = await arrived(mine, shared);
  const kept = await arrived(shared);
  await push(make.choose(gone, { stage: 'let-go' }), make.choose(kept, { stage: 'kept' }));
  const before = await counts();
  expect(await eraseLetGo(database, START + 30 * DAY_MS - 1)).toMatchObject({ items: 0 });
  expect(await counts()).toEqual(before);

  expect(await eraseLetGo(database, START + 30 * DAY_MS + 1)).toEqual({
    accountIds: [library.accountId],
    items: 1,
    pictures: [mine],
  });
  expect(await counts()).toEqual([1, 1, 1, 1, 0]);
  expect(await library.item(gone)).toBeUndefined();
  expect((await library.changesAfter(0)).records.items.map(({ id }) => id)).toEqual([kept]);
  expect([...(await findableLibrary(database, library.accountId).facts()).keys()]).toEqual([kept]);
  for (const { faults } of await examine(database)) expect(faults).toEqual([]);
  expect(await eraseLetGo(database, START + 60 * DAY_MS)).toMatchObject({ items: 0, pictures: [] });
});

it('what the reader has marked keeps its title and address, and can be fetched again', async () => {
  const itemId = await arrived('c'.repeat(64));
  const passage = { exact: 'eelgrass', prefix: '', suffix: '', start: 4, copyId: null };
  await push(make.highlight(itemId, 'key', passage), make.choose(itemId, { stage: 'let-go' }));
  const { cursor } = await library.changesAfter(0);
  expect(await eraseLetGo(database, START + 31 * DAY_MS)).toMatchObject({
    items: 1,
    pictures: ['c'.repeat(64)],
  });
  const { records } = await library.changesAfter(cursor);
  expect(records.items).toMatchObject([
    { id: itemId, capture: { page: { title: 'Eelgrass', copyId: null, thumbnail: null }, copies: [] } },
  ]);
  expect(await library.highlightsOf(itemId)).toHaveLength(1);
  expect(await eraseLetGo(database, START + 32 * DAY_MS)).toMatchObject({ items: 0 });
  expect(await push(make.refetch(itemId))).toMatchObject([{ outcome: 'applied' }]);
});

it('what stands in a dossier keeps its title and address, and the pictures that were put in', async () => {
  const [chosen, other] = ['d'.repeat(64), 'e'.repeat(64)];
  const itemId = await arrived(chosen, other);
  const dossierId = uuidv7();
  await push(
    make.entry(dossierId, { kind: 'item', itemId }, { rank: 'a0' }),
    make.entry(dossierId, { kind: 'picture', itemId, hash: chosen }, { rank: 'a1' }),
    make.choose(itemId, { stage: 'let-go' }),
  );
  expect(await eraseLetGo(database, START + 31 * DAY_MS)).toMatchObject({ items: 1, pictures: [other] });
  expect(await library.ownsPicture(chosen)).toBe(true);
  expect((await library.item(itemId))?.capture.page).toMatchObject({ title: 'Eelgrass', copyId: null });
});

it('a change of what was erased is told from one that cannot be taken', async () => {
  const itemId = await arrived();
  await push(make.choose(itemId, { stage: 'let-go' }));
  await eraseLetGo(database, START + 31 * DAY_MS);
  expect(await push(make.choose(itemId, { stage: 'inbox' }))).toMatchObject([{ outcome: 'refused', unknown: true }]);
});

// The last one: the clock of these tests never goes back.
it('what has a note of the reader’s own stays, without its text; what was brought back in time stays whole', async () => {
  const [noted, back] = [await arrived(), await arrived()];
  await push(
    make.note(ownNote.ofItem(noted), { text: 'Ask.' }),
    make.choose(noted, { stage: 'let-go' }),
    make.choose(back, { stage: 'let-go' }),
  );
  now = START + 29 * DAY_MS;
  await push(make.choose(back, { stage: 'queue' }));
  expect(await eraseLetGo(database, START + 31 * DAY_MS)).toMatchObject({ items: 1 });
  expect(await library.item(noted)).toMatchObject({ capture: { copies: [], outcome: { code: 'erased' } } });
  expect(await library.ownNoteOf(noted)).toMatchObject({ versions: [{ text: 'Ask.' }] });
  expect((await library.item(back))?.capture.copies).toHaveLength(1);
});
