/** @jest-environment node */
import 'fake-indexeddb/auto';
import { changeMaker, newItem } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { pageFrom } from '@dorvel/core/testing';
import { v7 as uuidv7 } from 'uuid';
import { useAccount } from './account';
import { followItems, itemsByStage, useItemsState } from './items';
import { usePace } from './pace';
import { DeviceStore } from './store';

jest.mock('@/device/store/settings-storage', () => ({
  readSetting: (_name: string, _schema: unknown, otherwise: unknown) => otherwise,
  writeSetting: jest.fn(),
}));

const make = changeMaker({ clock: createClock('items', Date.now), newId: uuidv7, now: Date.now });
let store: DeviceStore;
let end = () => {};
beforeEach(() => {
  store = new DeviceStore(uuidv7());
  useAccount.setState({ store } as never);
});
afterEach(async () => {
  end();
  await store.delete();
});

async function until(holds: () => boolean): Promise<void> {
  for (let round = 0; round < 200 && !holds(); round++) await new Promise((next) => setTimeout(next, 5));
  expect(holds()).toBe(true);
}
const state = () => useItemsState.getState();

/** Saves an item with a text of ten minutes in a language. */
async function saved(language: string): Promise<string> {
  const save = make.save({ address: `https://x.example/${uuidv7()}` });
  const item = newItem(save);
  item.capture.page = pageFrom({ language });
  await store.items.put(item);
  return item.id;
}

it('has the items by id and by stage, but those that another stands for', async () => {
  const [inbox, queue, pointer] = [await saved('en'), await saved('en'), await saved('en')];
  const known = (await store.items.get(pointer))!;
  await store.items.put({ ...known, capture: { ...known.capture, duplicateOf: inbox } });
  end = followItems();
  expect(state().all).toBeUndefined();
  await until(() => state().all?.length === 2);
  await store.commit(make.choose(queue, { stage: 'queue' }));
  await until(() => state().inStage.queue.length === 1);
  expect([state().inStage.inbox.map(({ id }) => id), state().byId.has(pointer)]).toEqual([[inbox], false]);
  expect(store.itemsAtHand.has(inbox)).toBe(true);
});

it('says that it is behind while the store has changes that are not in memory', async () => {
  const id = await saved('en');
  end = followItems();
  expect(state().isBehind).toBe(true);
  await until(() => state().all?.length === 1 && !state().isBehind);
  const told: [isBehind: boolean, queued: number][] = [];
  const endTold = useItemsState.subscribe(({ isBehind, inStage }) => told.push([isBehind, inStage.queue.length]));
  await store.commit(make.choose(id, { stage: 'queue' }));
  await until(() => state().inStage.queue.length === 1 && !state().isBehind);
  endTold();
  expect([told[0], told.at(-1)]).toEqual([
    [true, 0],
    [false, 1],
  ]);
});

it('has the minutes that they take this reader, and follows when those change', async () => {
  const [english, german] = [await saved('en'), await saved('de')];
  end = followItems();
  await until(() => state().all?.length === 2);
  const before = state().byId.get(german);
  usePace.setState({ paces: { en: { factor: 2 } } as never });
  expect(state().byId.get(english)?.capture.page?.minutes).toBe(20);
  expect(state().byId.get(german)).toEqual(before);
  usePace.setState({ paces: {} });
});

it('has none of who has signed out, from that moment on', async () => {
  await saved('en');
  end = followItems();
  await until(() => state().all?.length === 1);
  end();
  expect([state().all, state().byId.size]).toEqual([undefined, 0]);
  useAccount.setState({ store: null } as never);
  end = followItems();
  expect(state().all).toBeUndefined();
});

it('gives who brings texts ahead what was changed a moment ago, before screens have it', async () => {
  const id = await saved('en');
  end = followItems();
  await until(() => state().all?.length === 1 && !state().isBehind);
  expect(await itemsByStage(store)).toBe(state().inStage);
  await store.commit(make.choose(id, { stage: 'queue' }));
  expect((await itemsByStage(store)).queue.map((item) => item.id)).toEqual([id]);
});
