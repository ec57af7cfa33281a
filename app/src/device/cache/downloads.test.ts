import 'fake-indexeddb/auto';
import type { Item } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { pageFrom } from '@dorvel/core/testing';
import { v7 as uuidv7 } from 'uuid';
import { DeviceStore } from '@/device/store/store';
import { downloadAhead } from './downloads';

const mockCopies = new Map<string, object>();
const mockAsked: string[] = [];
jest.mock('@/device/sync/api', () => ({
  api: {
    copy: (id: string) => {
      mockAsked.push(id);
      const copy = mockCopies.get(id);
      return copy ? Promise.resolve(copy) : Promise.reject(new Error('no connection'));
    },
  },
}));
Object.assign(globalThis, { structuredClone: (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown });

/** The pictures that are kept, by address. */
let pictures: Map<string, Blob>;
let store: DeviceStore;
beforeEach(() => {
  store = new DeviceStore(uuidv7());
  mockCopies.clear();
  mockAsked.length = 0;
  pictures = new Map();
  const cache = {
    match: (address: string) => {
      const blob = pictures.get(address);
      return Promise.resolve(blob && { blob: () => Promise.resolve(blob) });
    },
    add: (address: string) => Promise.resolve(void pictures.set(address, new Blob(['123']))),
    delete: (address: string) => Promise.resolve(pictures.delete(address)),
  };
  Object.assign(globalThis, { caches: { open: () => Promise.resolve(cache) } });
});
afterEach(() => store.delete());

let saved = 0;
/** An item with a copy on the server that shows these pictures. */
async function item(
  stage: Item['choices']['stage']['value'],
  ...shows: string[]
): Promise<{ id: string; copyId: string }> {
  const [id, copyId] = [uuidv7(), uuidv7()];
  const made = newItem({
    type: 'save',
    id: uuidv7(),
    itemId: id,
    address: `https://x.example/${id}`,
    savedAt: ++saved,
    stamp: '000000001-0000-a',
  });
  made.choices.stage.value = stage;
  made.capture.page = pageFrom({ copyId });
  const img = (src: string) => ({ type: 'element', tagName: 'img', properties: { src }, children: [] });
  const figure = { type: 'element', tagName: 'figure', properties: {}, children: shows.map(img) };
  mockCopies.set(copyId, {
    id: copyId,
    itemId: id,
    madeAt: 1,
    title: 'T',
    language: 'en',
    hash: null,
    tree: { type: 'root', children: [figure] },
  });
  await store.items.put(made);
  return { id, copyId };
}
const always = () => true;
const here = async () => (await store.copies.toArray()).map(({ id, textOnly }) => [id, textOnly === 1]);

it('brings what is in Inbox and Queue with its pictures, the latest first, and of what is kept the text', async () => {
  const [inbox, queue] = [await item('inbox', '/a.webp'), await item('queue', '/b.webp')];
  const [kept, letGo] = [await item('kept', '/c.webp'), await item('let-go', '/d.webp')];
  await downloadAhead(store, always);
  expect(mockAsked).toEqual([queue.copyId, inbox.copyId, kept.copyId]);
  expect([...pictures.keys()].sort()).toEqual(['/a.webp', '/b.webp']);
  expect(await here()).toEqual(
    expect.arrayContaining([
      [inbox.copyId, false],
      [queue.copyId, false],
      [kept.copyId, true],
    ]),
  );
  expect(await store.copies.get(letGo.copyId)).toBeUndefined();
  // The room that they take is that of the text and of the pictures.
  expect((await store.copies.get(inbox.copyId))!.bytes).toBeGreaterThan((await store.copies.get(kept.copyId))!.bytes);
  mockAsked.length = 0;
  await downloadAhead(store, always);
  expect(mockAsked).toEqual([]);
});

it('brings the pictures of a text that is wanted whole after all', async () => {
  const { id, copyId } = await item('kept', '/c.webp');
  await downloadAhead(store, always);
  expect(pictures.size).toBe(0);
  const known = (await store.items.get(id))!;
  await store.items.put({ ...known, choices: { ...known.choices, stage: { value: 'queue', at: '000000002-0000-a' } } });
  await downloadAhead(store, always);
  expect([await here(), [...pictures.keys()]]).toEqual([[[copyId, false]], ['/c.webp']]);
  expect(mockAsked).toEqual([copyId]);
});

it('lets go of copies of what was let go, but of no picture that another shows', async () => {
  const [gone] = [await item('inbox', '/shared.webp', '/own.webp'), await item('inbox', '/shared.webp')];
  await downloadAhead(store, always);
  const known = (await store.items.get(gone.id))!;
  await store.items.put({
    ...known,
    choices: { ...known.choices, stage: { value: 'let-go', at: '000000002-0000-a' } },
  });
  await downloadAhead(store, always);
  expect(await store.copies.get(gone.copyId)).toBeUndefined();
  expect([...pictures.keys()]).toEqual(['/shared.webp']);
});

it('makes room for the reader between two copies, and keeps what has arrived when the connection goes', async () => {
  const first = await item('inbox');
  const second = await item('inbox');
  let asked = 0;
  await downloadAhead(store, () => ++asked < 2);
  expect(await here()).toEqual([[second.copyId, false]]);
  mockCopies.delete(first.copyId);
  await expect(downloadAhead(store, always)).rejects.toThrow('no connection');
  expect(await here()).toEqual([[second.copyId, false]]);
});
