import 'fake-indexeddb/auto';
import type { Mutation } from '@dorvel/core/records';
import { journalChanges, unsentChanges } from './journal';
import { replayUnsent, sendAll } from './replay';
import { DeviceStore } from './store';

jest.mock('./settings-storage', () => ({
  readSetting: (_name: string, _schema: unknown, otherwise: unknown) => otherwise,
  writeSetting: () => undefined,
}));

Object.assign(globalThis, { structuredClone: (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown });

const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const MINE = uuid(100);
const save = (n: number): Mutation => ({
  type: 'save',
  id: uuid(n),
  itemId: uuid(1000 + n),
  address: `https://tides.example/${n}`,
  savedAt: 1_700_000_000_000,
  howMuch: 'words-and-pictures',
  stamp: `${'0'.repeat(9)}-0000-device00`,
});
const tag = (n: number): Mutation => ({
  type: 'tag',
  id: uuid(200 + n),
  itemId: uuid(1000 + n),
  stamp: `${'0'.repeat(8)}1-0000-device00`,
  set: { boats: 'boats' },
});

let store: DeviceStore;
let refused: string[];
const say = (words: string) => void refused.push(words);
const make = async (change: Mutation) => {
  const noted = journalChanges(MINE, [change]);
  await store.commitAll([change]);
  noted.written();
};
const inOutbox = async () => (await store.outbox.toArray()).map(({ mutation }) => mutation.id);

beforeEach(() => {
  localStorage.clear();
  store = new DeviceStore(MINE);
  refused = [];
});
afterEach(() => store.delete());

it('makes again what a store that was lost had not sent, once', async () => {
  await replayUnsent(store, MINE, say);
  await make(save(1));
  await make(tag(1));
  await store.delete();
  store = new DeviceStore(MINE);
  expect(await replayUnsent(store, MINE, say)).toBe(true);
  expect((await store.items.get(uuid(1001)))?.tags).toHaveProperty('boats');
  expect(await inOutbox()).toEqual([uuid(1), uuid(201)]);
  expect(await replayUnsent(store, MINE, say)).toBe(false);
  expect(refused).toEqual([]);
});

it('tells of what cannot be made any more, and makes the rest', async () => {
  journalChanges(MINE, [tag(7)]).written();
  journalChanges(MINE, [save(300)]).written();
  expect(await replayUnsent(store, MINE, say)).toBe(true);
  expect(refused).toHaveLength(1);
  expect(await inOutbox()).toEqual([uuid(300)]);
});

it('keeps nothing beside the store that has been sent, and all that was changed while it was', async () => {
  await replayUnsent(store, MINE, say);
  await make(save(1));
  await sendAll(store, MINE, async () => {
    await store.outbox.clear();
    await make(save(2));
  });
  expect(unsentChanges(MINE).map(({ changes }) => changes)).toEqual([[save(2)]]);
  // What has not been filled since it was made may stand in the place of one that was lost.
  await store.meta.clear();
  await sendAll(store, MINE, async () => {});
  expect(unsentChanges(MINE)).toHaveLength(1);
  await expect(sendAll(store, MINE, () => Promise.reject(new Error('away')))).rejects.toThrow('away');
  expect(unsentChanges(MINE)).toHaveLength(1);
});
