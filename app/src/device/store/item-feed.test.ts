/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { Item } from '@dorvel/core/model';
import { changeMaker, newItem } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { feedItems, followedItems } from './item-feed';
import { DeviceStore } from './store';

const make = changeMaker({ clock: createClock('feed', Date.now), newId: uuidv7, now: Date.now });
const NEVER = '000000001-0000-a';
let store: DeviceStore;
let maps: ReadonlyMap<string, Item>[];
/** What was told before all were read. */
let firsts: ReadonlyMap<string, Item>[];
let end: () => void;
const last = () => maps.at(-1);
const failed = jest.fn();

beforeEach(() => {
  store = new DeviceStore(uuidv7());
  maps = [];
  firsts = [];
  failed.mockClear();
});
afterEach(async () => {
  end();
  await store.delete();
});

/** Saves this many items. @returns their ids */
async function saved(count: number): Promise<string[]> {
  const saves = Array.from({ length: count }, (_, n) => make.save({ address: `https://x.example/${n}` }));
  await store.commitAll(saves);
  return saves.map(({ itemId }) => itemId);
}
const follow = () => {
  end = feedItems(
    store,
    (items, isWhole) => {
      if (isWhole) maps.push(items);
      else firsts.push(items);
    },
    failed,
  );
};
/** Until the feed has told of something that holds. */
async function until(holds: () => boolean): Promise<void> {
  for (let round = 0; round < 200 && !holds(); round++) await new Promise((next) => setTimeout(next, 5));
  expect(holds()).toBe(true);
}

it('reads all once, and afterwards what has changed alone', async () => {
  const ids = await saved(3);
  follow();
  await until(() => last()?.size === 3);
  const all = jest.spyOn(store.items, 'where');
  const some = jest.spyOn(store.items, 'bulkGet');
  const before = last()!;
  await store.commit(make.choose(ids[1]!, { title: 'Renamed' }));
  await until(() => last()?.get(ids[1]!)?.choices.title.value === 'Renamed');
  expect(all).not.toHaveBeenCalled();
  expect(some.mock.calls).toEqual([[[ids[1]]]]);
  // What has not changed is the same object, so that nothing is drawn again for it.
  expect(last()!.get(ids[0]!)).toBe(before.get(ids[0]!));
  expect(before.get(ids[1]!)?.choices.title.value).toBeNull();
});

it('hears of new ones, of those that are gone, and of what another tab of this browser does', async () => {
  const [first] = await saved(2);
  follow();
  await until(() => last()?.size === 2);
  const elsewhere = new DeviceStore(store.name.replace('dorvel-', ''));
  const save = make.save({ address: 'https://x.example/new' });
  await elsewhere.commit(save);
  await until(() => last()?.size === 3);
  await elsewhere.items.delete(first!);
  await until(() => last()?.has(first!) === false);
  expect([...last()!.keys()]).toContain(save.itemId);
  elsewhere.close();
});

it('reads all again when more has changed at once than can be named', async () => {
  follow();
  await until(() => last()?.size === 0);
  const many = Array.from({ length: 120 }, (_, n) =>
    newItem({
      type: 'save',
      id: uuidv7(),
      itemId: uuidv7(),
      address: `https://x.example/m${n}`,
      savedAt: n,
      stamp: '000000001-0000-a',
    }),
  );
  await store.items.bulkPut(many);
  await until(() => last()?.size === 120);
});

it('tells first of what waits and of what was saved last, then of all, each the same object', async () => {
  const many = Array.from({ length: 250 }, (_, n) => {
    const address = `https://x.example/l${n}`;
    const item = newItem({
      type: 'save',
      id: uuidv7(),
      itemId: uuidv7(),
      address,
      savedAt: n === 7 ? 10_000 : n,
      stamp: NEVER,
    });
    item.choices.stage = { value: n === 3 ? 'queue' : 'finished', at: NEVER };
    return item;
  });
  await store.items.bulkPut(many);
  follow();
  await until(() => last()?.size === 250);
  expect(firsts).toHaveLength(1);
  const [first] = firsts;
  expect(first!.size).toBe(61);
  // What waits, however long ago it was saved; what was saved last, wherever its id stands.
  for (const n of [3, 7, 249]) expect(first!.get(many[n]!.id)).toBe(last()!.get(many[n]!.id));
  expect(first!.has(many[100]!.id)).toBe(false);
});

it('has a change that is made while they are read', async () => {
  const ids = await saved(150);
  follow();
  await until(() => firsts.length === 1);
  await store.commit(make.choose(ids[0]!, { title: 'Meanwhile' }));
  await until(() => last()?.get(ids[0]!)?.choices.title.value === 'Meanwhile');
  expect(last()!.size).toBe(150);
});

it('gives who asks now and then all of them, as they are by then', async () => {
  const [id] = await saved(120);
  const followed = followedItems(store);
  end = () => followed.end();
  expect((await followed.now()).size).toBe(120);
  await store.commit(make.choose(id!, { title: 'Since then' }));
  for (let round = 0; round < 200; round++) {
    if ((await followed.now()).get(id!)?.choices.title.value === 'Since then') break;
    await new Promise((next) => setTimeout(next, 5));
  }
  expect((await followed.now()).get(id!)?.choices.title.value).toBe('Since then');
});

it('says when they cannot be read, and goes on with the next change', async () => {
  const [id] = await saved(1);
  const broken = jest.spyOn(store.items, 'where').mockImplementationOnce(() => {
    throw new Error('no room');
  });
  follow();
  await until(() => failed.mock.calls.length === 1);
  broken.mockRestore();
  await store.commit(make.choose(id!, { title: 'Again' }));
  await until(() => last()?.get(id!)?.choices.title.value === 'Again');
});

it('tells nothing of changes to other records, nor once it has ended', async () => {
  await saved(1);
  follow();
  await until(() => last()?.size === 1);
  const told = maps.length;
  await store.commit(make.keepSearch('tides', 'all'));
  await new Promise((next) => setTimeout(next, 40));
  expect(maps).toHaveLength(told);
  end();
  await saved(1);
  await new Promise((next) => setTimeout(next, 40));
  expect(maps).toHaveLength(told);
});
