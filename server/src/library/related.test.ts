import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Copy, type Item, NEVER } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { createRelatedIndex } from '@dorvel/core/relate';
import { termProfile } from '@dorvel/core/terms';
import { pageFrom } from '@dorvel/core/testing';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { workshopInPlace } from '../apart/in-place';
import { type Database, openDatabase } from '../db/open';
import { profiles } from '../db/schema';
import { TEXT_TASKS } from '../tasks/texts';
import { libraryOf } from './library';
import { workshopProfiler } from './profiler';
import { relatedLibrary } from './related';

const PROFILER = workshopProfiler(workshopInPlace(TEXT_TASKS));

const NOW = Date.UTC(2026, 10, 25);
/** Four little texts of two subjects. */
const TEXTS = {
  eelgrass: 'The eelgrass beds of the bay feed the brent geese. Eelgrass beds hold the silt, and the geese return.',
  geese: 'Brent geese graze on eelgrass. Where the eelgrass beds went, the geese went with them from the bay.',
  larch: 'Larch planks bend after an hour of steam. The planks of a hull are larch, and the frames are oak.',
  oak: 'Oak frames outlast larch planks. Steam the planks of the hull, and fit the frames first.',
};
type Name = keyof typeof TEXTS;

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

async function libraryWithTexts(names: readonly Name[]) {
  const account = await accountRepository(database, () => NOW).create(
    `${uuidv7()}@x.example`,
    'A',
    'long enough words',
  );
  if (!account) throw new Error('not made');
  const library = libraryOf(database, account.id);
  const ids = new Map<Name, string>();
  async function put(name: Name, change: (item: Item) => void = () => undefined) {
    const id = ids.get(name) ?? uuidv7();
    ids.set(name, id);
    const copy: Copy = {
      id: uuidv7(),
      itemId: id,
      madeAt: NOW,
      title: name,
      language: 'en',
      hash: 'a'.repeat(64),
      tree: {
        type: 'root',
        children: [{ type: 'element', tagName: 'p', properties: {}, children: [{ type: 'text', value: TEXTS[name] }] }],
      },
    };
    const item = newItem({
      type: 'save',
      id: uuidv7(),
      itemId: id,
      address: `https://x.example/${id}`,
      savedAt: NOW,
      stamp: NEVER,
    });
    item.capture.page = pageFrom({ title: name, wordCount: 20, minutes: 1, copyId: copy.id });
    change(item);
    await library.change(async (write) => {
      await write.putCopy(copy);
      await write.put(item);
    });
    return item;
  }
  for (const name of names) await put(name);
  const nameOf = (id: string) => [...ids].find(([, each]) => each === id)?.[0];
  return { account, put, idOf: (name: Name) => ids.get(name) ?? '', nameOf };
}

const NAMES = Object.keys(TEXTS) as Name[];

it('relates as a device does that has the same texts', async () => {
  const { account, idOf } = await libraryWithTexts(NAMES);
  const onDevice = createRelatedIndex();
  for (const name of NAMES) onDevice.put(idOf(name), termProfile(TEXTS[name], name, 'en'));
  const onServer = relatedLibrary(database, account.id, PROFILER);
  for (const name of NAMES) expect(await onServer.related(idOf(name), 3)).toEqual(onDevice.related(idOf(name), 3));
});

it('follows the library: what comes, what is let go, and what another server process had profiled', async () => {
  const { account, put, idOf, nameOf } = await libraryWithTexts(['eelgrass', 'larch', 'oak']);
  const relating = relatedLibrary(database, account.id, PROFILER);
  const nearest = async (to: Name, from = relating) => nameOf((await from.related(idOf(to), 1))[0]?.id ?? '');
  expect(await nearest('eelgrass')).not.toBe('geese');
  await put('geese');
  expect(await nearest('eelgrass')).toBe('geese');
  expect(await nearest('eelgrass', relatedLibrary(database, account.id, PROFILER))).toBe('geese');
  await put('geese', (item) => {
    item.choices.stage = { value: 'let-go', at: NEVER };
  });
  expect(await nearest('eelgrass')).not.toBe('geese');
  expect((await database.read.select().from(profiles)).length).toBeGreaterThan(0);
});

it('suggests the tags of what is near, and never one that it has', async () => {
  const { account, put } = await libraryWithTexts(['larch', 'oak']);
  await put('geese', (item) => {
    item.tags = { birds: { value: 'Birds', at: NEVER } };
  });
  const untagged = await put('eelgrass');
  const relating = relatedLibrary(database, account.id, PROFILER);
  const suggested = await relating.suggestedTags(untagged, 3);
  expect(suggested.map(({ tag }) => tag)).toEqual(['Birds']);
  const tagged = await put('eelgrass', (item) => {
    item.tags = { birds: { value: 'Birds', at: NEVER } };
  });
  expect(await relating.suggestedTags(tagged, 3)).toEqual([]);
});
