import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Copy, type Item, NEVER } from '@dorvel/core/model';
import { newItem, silenceKind } from '@dorvel/core/records';
import { createRelatedIndex } from '@dorvel/core/relate';
import { termProfile } from '@dorvel/core/terms';
import { pageFrom } from '@dorvel/core/testing';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { workshopInPlace } from '../apart/in-place';
import { type Database, openDatabase } from '../db/open';
import { profiles } from '../db/schema';
import { TEXT_TASKS } from '../tasks/texts';
import { echoSource } from './echoes';
import { libraryOf } from './library';
import { workshopProfiler } from './profiler';
import { profileStore } from './profiles';
import { relatedLibrary } from './related';

const PROFILER = workshopProfiler(workshopInPlace(TEXT_TASKS));
const relatedTo = (accountId: string) =>
  relatedLibrary(database, accountId, profileStore(database, accountId, PROFILER));

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
  const onServer = relatedTo(account.id);
  for (const name of NAMES) expect(await onServer.related(idOf(name), 3)).toEqual(onDevice.related(idOf(name), 3));
});

it('follows the library: what comes, what is let go, and what another server process had profiled', async () => {
  const { account, put, idOf, nameOf } = await libraryWithTexts(['eelgrass', 'larch', 'oak']);
  const relating = relatedTo(account.id);
  const nearest = async (to: Name, from = relating) => nameOf((await from.related(idOf(to), 1))[0]?.id ?? '');
  expect(await nearest('eelgrass')).not.toBe('geese');
  await put('geese');
  expect(await nearest('eelgrass')).toBe('geese');
  expect(await nearest('eelgrass', relatedTo(account.id))).toBe('geese');
  await put('geese', (item) => {
    item.choices.stage = { value: 'let-go', at: NEVER };
  });
  expect(await nearest('eelgrass')).not.toBe('geese');
  expect((await database.read.select().from(profiles)).length).toBeGreaterThan(0);
});

it('lets nobody wait for a large library to be gone through: what is known by then is the answer', async () => {
  const { account, idOf } = await libraryWithTexts(NAMES);
  let letGo: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (letGo = resolve));
  const slow = { profile: (record: string) => held.then(() => PROFILER.profile(record)) };
  const relating = relatedLibrary(database, account.id, profileStore(database, account.id, slow), 20);
  expect(await Promise.all([1, 2, 3].map(() => relating.related(idOf('eelgrass'), 1)))).toEqual([[], [], []]);
  letGo();
  const [nearest] = await relatedLibrary(database, account.id, profileStore(database, account.id, PROFILER)).related(
    idOf('eelgrass'),
    1,
  );
  expect(nearest?.id).toBe(idOf('geese'));
  expect(await relating.related(idOf('eelgrass'), 1)).toEqual([nearest]);
});

it('suggests the tags of what is near, and never one that it has', async () => {
  const { account, put } = await libraryWithTexts(['larch', 'oak']);
  await put('geese', (item) => {
    item.tags = { birds: { value: 'Birds', at: NEVER } };
  });
  const untagged = await put('eelgrass');
  const relating = relatedTo(account.id);
  const suggested = await relating.suggestedTags(untagged, 3);
  expect(suggested.map(({ tag }) => tag)).toEqual(['Birds']);
  const tagged = await put('eelgrass', (item) => {
    item.tags = { birds: { value: 'Birds', at: NEVER } };
  });
  expect(await relating.suggestedTags(tagged, 3)).toEqual([]);
});

describe('what an extension is told, to say where else a page’s terms stand', () => {
  const told = (accountId: string) => echoSource(database, accountId, profileStore(database, accountId, PROFILER));

  it('is what each item speaks of, with where it stands and the words around it', async () => {
    const { account, idOf } = await libraryWithTexts(['eelgrass', 'oak']);
    const { items, gone, upTo, hasMore } = await told(account.id).after(0);
    expect(items.map(({ id }) => id)).toEqual([idOf('eelgrass'), idOf('oak')]);
    expect({ gone, hasMore }).toEqual({ gone: [], hasMore: false });
    for (const [name, { excerpts }] of (['eelgrass', 'oak'] as const).map((each, n) => [each, items[n]!] as const)) {
      expect(excerpts.length).toBeGreaterThan(0);
      for (const [, , , start, form, around] of excerpts) {
        expect(TEXTS[name].slice(start, start + form.length)).toBe(form);
        expect(around).toContain(form);
      }
    }
    expect(await told(account.id).after(upTo)).toMatchObject({ upTo, items: [], gone: [] });
  });

  it('follows what comes and what is let go, and names all that is silenced', async () => {
    const { account, put, idOf } = await libraryWithTexts(['eelgrass', 'oak']);
    const { upTo } = await told(account.id).after(0);
    await put('geese');
    await put('oak', (item) => {
      item.choices.stage = { value: 'let-go', at: NEVER };
    });
    const what = { kind: 'site', host: 'x.example' } as const;
    await libraryOf(database, account.id).change((write) =>
      write.putRecord(silenceKind, {
        ...{ id: uuidv7(), madeAt: NOW, what },
        choices: { silenced: { value: true, at: NEVER } },
      }),
    );
    const after = await told(account.id).after(upTo);
    expect(after.items.map(({ id }) => id)).toEqual([idOf('geese')]);
    expect(after.gone).toEqual([idOf('oak')]);
    expect(after.silenced).toEqual([what]);
  });
});
