/** @jest-environment node */
import 'fake-indexeddb/auto';
import { ServerProblem } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { pageFrom } from '@dorvel/core/testing';
import { v7 as uuidv7 } from 'uuid';
import { DeviceStore } from '@/device/store/store';
import { downloadAhead, keepCopy } from './downloads';

const mockCopies = new Map<string, object>();
const mockAsked: string[] = [];
const mockPicture = jest.fn((_address: string) => Promise.resolve(new Blob(['123'], { type: 'image/webp' })));
jest.mock('@/device/sync/api', () => ({
  api: {
    picture: (address: string) => mockPicture(address),
    copy: (id: string) => {
      mockAsked.push(id);
      const copy = mockCopies.get(id);
      return copy ? Promise.resolve(copy) : Promise.reject(new Error('no connection'));
    },
  },
}));
jest.mock('@/device/store/settings-storage', () => ({
  readSetting: (_name: string, _schema: unknown, otherwise: unknown) => otherwise,
  writeSetting: jest.fn(),
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
    put: async (address: string, answer: Response) => void pictures.set(address, await answer.blob()),
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

it('does not look through copies again while nothing has changed that they depend on, and does when it has', async () => {
  const one = await item('finished');
  await downloadAhead(store, always);
  const reading = jest.spyOn(store.copies, 'orderBy');
  const known = (await store.items.get(one.id))!;
  await store.items.put({
    ...known,
    choices: { ...known.choices, title: { ...known.choices.title, value: 'Renamed' } },
  });
  await downloadAhead(store, always);
  expect([reading.mock.calls.length, mockAsked]).toEqual([0, [one.copyId]]);
  const two = await item('queue');
  await downloadAhead(store, always);
  expect(mockAsked).toEqual([one.copyId, two.copyId]);
  // A copy that another tab took away is brought again.
  await store.copies.delete(one.copyId);
  await new Promise((next) => setTimeout(next, 20));
  await downloadAhead(store, always);
  expect(mockAsked).toEqual([one.copyId, two.copyId, one.copyId]);
  await store.items.put({
    ...known,
    choices: { ...known.choices, stage: { ...known.choices.stage, value: 'let-go' } },
  });
  await downloadAhead(store, always);
  expect(await here()).toEqual([[two.copyId, false]]);
});

it('brings everything again once the store was erased, and a new one has its name', async () => {
  const { copyId, id } = await item('queue');
  await downloadAhead(store, always);
  const known = (await store.items.get(id))!;
  await store.delete();
  store = new DeviceStore(store.name.replace('dorvel-', ''));
  await store.items.put(known);
  await downloadAhead(store, always);
  expect([await here(), mockAsked]).toEqual([[[copyId, false]], [copyId, copyId]]);
});

it('brings the rest where the server has one of the pictures no more', async () => {
  const { copyId } = await item('inbox', '/gone.webp', '/a.webp');
  await item('inbox', '/b.webp');
  mockPicture.mockImplementation((address) =>
    address === '/gone.webp'
      ? Promise.reject(new ServerProblem(404, 'That picture is not here.'))
      : Promise.resolve(new Blob(['123'], { type: 'image/webp' })),
  );
  await downloadAhead(store, always);
  expect([...pictures.keys()].sort()).toEqual(['/a.webp', '/b.webp']);
  expect(await here()).toContainEqual([copyId, false]);
  // Any other trouble is one, and tried again.
  await item('inbox', '/c.webp');
  mockPicture.mockRejectedValueOnce(new ServerProblem(503, 'Busy.'));
  await expect(downloadAhead(store, always)).rejects.toThrow('Busy.');
});

it('brings what is nothing but pictures with them when it is kept, too, in the size for a wall as well', async () => {
  const { id, copyId } = await item('kept', '/page.webp');
  const [hash, small, large] = ['a', 'b', 'c'].map((letter) => letter.repeat(64)) as [string, string, string];
  const known = (await store.items.get(id))!;
  known.capture.page!.pictures = [{ hash, small, large, width: 9, height: 9, seen: null }];
  await store.items.put(known);
  await downloadAhead(store, always);
  expect(await here()).toEqual([[copyId, false]]);
  expect([...pictures.keys()]).toEqual(['/page.webp', `/api/pictures/${small}.webp`]);
});

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

describe('the room that there is', () => {
  /** How many bytes one copy without pictures takes. */
  const oneCopy = async () => (await store.copies.toArray())[0]!.bytes;
  const ids = async () => new Set(await store.copies.toCollection().primaryKeys());

  it('is filled with what is wanted most, and nothing is brought beyond it', async () => {
    const kept = [await item('kept'), await item('kept')];
    const waiting = [await item('inbox'), await item('queue')];
    // The guess for what nobody has seen yet is 60 kB: there is room for one more of them, each time.
    await downloadAhead(store, always, 62_000);
    expect(await ids()).toEqual(new Set([waiting[1]!.copyId, waiting[0]!.copyId, kept[1]!.copyId, kept[0]!.copyId]));
    mockAsked.length = 0;
    const more = await item('inbox');
    await downloadAhead(store, always, 59_000);
    expect(await ids()).not.toContain(more.copyId);
    expect((await ids()).size).toBe(4);
    expect(mockAsked).toEqual([]);
  });

  it('that is made smaller loses earlier copies first, then what is finished, and Inbox and Queue last', async () => {
    const [finished, inbox] = [await item('finished'), await item('inbox')];
    await downloadAhead(store, always);
    const item_ = (await store.items.get(inbox.id))!;
    const earlier = { ...(await store.copies.get(inbox.copyId))!, id: uuidv7() };
    await store.copies.put(earlier);
    await store.items.put({ ...item_, capture: { ...item_.capture, copies: [{ id: earlier.id }] as never } });
    // Each as large as one with many pictures, so that it counts against what is left as a margin.
    const large = 3_000_000;
    await store.copies.toCollection().modify((copy) => void (copy.bytes = large));
    const left = async (room: number) => {
      await downloadAhead(store, always, room);
      return ids();
    };
    expect(await left(3 * large)).toEqual(new Set([inbox.copyId, finished.copyId, earlier.id]));
    expect(await left(2 * large)).toEqual(new Set([inbox.copyId, finished.copyId]));
    expect(await left(large)).toEqual(new Set([inbox.copyId]));
    expect(mockAsked).toHaveLength(2);
  });

  it('that was taken by something larger than was thought is not filled and emptied by turns', async () => {
    const { copyId } = await item('inbox');
    await item('inbox');
    await downloadAhead(store, always, 130_000);
    const size = await oneCopy();
    expect(size).toBeLessThan(1000);
    await store.copies
      .where('id')
      .equals(copyId)
      .modify((copy) => void (copy.bytes = 5_000_000));
    await downloadAhead(store, always, 130_000);
    expect(await ids()).not.toContain(copyId);
    mockAsked.length = 0;
    await downloadAhead(store, always, 130_000);
    await downloadAhead(store, always, 130_000);
    expect(mockAsked.length).toBeLessThanOrEqual(1);
  });

  it('what the reader opens stays while they may be reading it', async () => {
    const { id, copyId } = await item('let-go');
    const known = (await store.items.get(id))!;
    await store.items.put({ ...known, choices: { ...known.choices, stage: { value: 'finished', at: 'x' } } } as never);
    await keepCopy(store, (await store.items.get(id))!, copyId);
    await store.copies.toCollection().modify((copy) => void (copy.bytes = 9_000_000));
    await downloadAhead(store, always, 1000);
    expect(await ids()).toEqual(new Set([copyId]));
  });

  it('of a device that is full: it says so, brings no more, and what is here stays', async () => {
    const first = await item('inbox', '/a.webp');
    await downloadAhead(store, always);
    await item('inbox', '/b.webp');
    const full = Object.assign(new Error('no room'), { name: 'QuotaExceededError' });
    const cache = await caches.open('x');
    const { put } = cache;
    Object.assign(cache, { put: () => Promise.reject(full) });
    expect(await downloadAhead(store, always)).toEqual({ isDeviceFull: true });
    expect(await ids()).toEqual(new Set([first.copyId]));
    Object.assign(cache, { put });
    expect(await downloadAhead(store, always)).toEqual({ isDeviceFull: false });
    expect((await ids()).size).toBe(2);
  });
});
