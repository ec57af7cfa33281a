// A library of invented texts, the same each time, for measuring what is done with a whole one.
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
const server = (name) => import(path.join(root, 'server/src', name));
const core = (name) => import(path.join(root, 'core/src', name));
export const WORDS = 1800;

/** The library of the one account of a database in a folder, begun where there is none. */
export async function openLibrary(folder, name) {
  const { openDatabase } = await server('db/open.ts');
  const { accountRepository } = await server('accounts/accounts.ts');
  const { libraryOf } = await server('library/library.ts');
  const { folderStore } = await server('files/files.ts');
  const database = await openDatabase(`file:${folder}/${name}.db`, path.join(root, 'server/src/db/migrations'));
  const accounts = accountRepository(database, Date.now);
  const known = await accounts.create('a@example.org', 'A', 'a long enough passphrase').catch(() => null);
  const { accounts: table } = await server('db/schema.ts');
  const [row] = await database.read.select({ id: table.id }).from(table);
  const account = { id: known?.id ?? row.id, mail: 'a@example.org', name: 'A' };
  return { database, account, library: libraryOf(database, account.id), files: folderStore(`${folder}/${name}`) };
}

/** The id of the nth of a kind. */
export const id = (n, kind) => `019a0000-0000-7000-8${kind}00-${String(n).padStart(12, '0')}`;

/** The same words each time: a generator with a seed, after Lehmer. */
export async function fill({ library }, items, picturesOf = () => []) {
  const { newItem, itemKind } = await core('records/index.ts');
  const { createClock } = await core('sync/index.ts');
  const { pageFrom } = await core('testing/pages.ts');
  const clock = createClock('bench', Date.now);
  let seed = 7;
  const next = (most) => (seed = (seed * 48_271) % 2_147_483_647) % most;
  const syllables = 'ta ren mo li sa ke dor ul ve an is or pe tu ga'.split(' ');
  const word = () => Array.from({ length: 1 + next(3) }, () => syllables[next(syllables.length)]).join('');
  const vocabulary = Array.from({ length: 8000 }, word);
  const words = (count) => Array.from({ length: count }, () => vocabulary[Math.min(next(8000), next(8000))]).join(' ');
  for (let start = 0; start < items; start += 50)
    await library.change(async (write) => {
      for (let n = start; n < Math.min(start + 50, items); n++) {
        const save = {
          ...{
            type: 'save',
            id: id(n, 1),
            itemId: id(n, 2),
            stamp: clock.next(),
            savedAt: 1_700_000_000_000 + n * 60_000,
          },
          address: `https://bench.example/${n}`,
        };
        const item = itemKind.apply(undefined, save) ?? newItem(save);
        const title = words(6);
        item.capture.state = 'arrived';
        item.capture.page = pageFrom({ title, copyId: id(n, 3), language: 'en', minutes: 8, wordCount: WORDS });
        const paragraph = () => ({
          ...{ type: 'element', tagName: 'p', properties: {} },
          children: [{ type: 'text', value: `${words(90)}.` }],
        });
        const picture = (hash) => ({
          ...{ type: 'element', tagName: 'figure', properties: {} },
          children: [
            {
              ...{ type: 'element', tagName: 'img', children: [] },
              properties: { src: `/api/pictures/${hash}.webp`, alt: words(4) },
            },
          ],
        });
        const paragraphs = Array.from({ length: WORDS / 90 }, paragraph);
        const tree = { type: 'root', children: [...paragraphs, ...picturesOf(n).map(picture)] };
        // What it is found by is made when it comes in.
        await write.putCopy({ id: id(n, 3), itemId: item.id, madeAt: 1, title, language: 'en', hash: null, tree }, '');
        await write.put(item);
      }
    });
}
