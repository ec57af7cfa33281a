/** @jest-environment node */
import 'fake-indexeddb/auto';
import { DeviceStore, type KeptCopy } from '@/device/store/store';
import { copyAtHand, plainTextOf, takeSnapshot } from './snapshot-cache';

jest.mock('@/device/store/account', () => ({ useAccount: { getState: () => ({ store: null }) } }));

const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const copy = (n: number) =>
  ({
    id: uuid(n),
    title: `Copy ${n}`,
    language: 'en',
    tree: {
      type: 'root',
      children: [{ type: 'element', tagName: 'p', properties: {}, children: [{ type: 'text', value: `It is ${n}.` }] }],
    },
    bytes: 100,
    pictures: [],
  }) as unknown as KeptCopy;

it('keeps the texts touched last, gives the same object while nothing changes, and never an old one', async () => {
  const store = new DeviceStore('at-hand');
  await store.copies.bulkPut([1, 2, 3, 4, 5, 6].map(copy));
  const first = await takeSnapshot(store, uuid(1));
  expect(first?.title).toBe('Copy 1');
  expect(await takeSnapshot(store, uuid(1))).toBe(first);
  for (const n of [2, 3, 4, 5]) await takeSnapshot(store, uuid(n));
  expect(copyAtHand(store, uuid(1))).toBe(first);
  await takeSnapshot(store, uuid(6));
  expect(copyAtHand(store, uuid(1))).toBeUndefined();
  expect(copyAtHand(store, uuid(2))?.title).toBe('Copy 2');

  // Its pictures have come.
  await store.copies.put({ ...copy(2), bytes: 900 });
  expect((await takeSnapshot(store, uuid(2)))?.bytes).toBe(900);
  await store.copies.delete(uuid(2));
  expect(await takeSnapshot(store, uuid(2))).toBeNull();
  expect(copyAtHand(store, uuid(2))).toBeUndefined();
  expect(copyAtHand(new DeviceStore('another'), uuid(3))).toBeUndefined();
});

it('works out the words of a text once', () => {
  const { tree } = copy(7);
  const text = plainTextOf({ tree, language: 'en' });
  expect(text.plain.text).toBe('It is 7.');
  expect(text.starts).toEqual([0, 3, 6]);
  expect(plainTextOf({ tree, language: 'en' })).toBe(text);
});
