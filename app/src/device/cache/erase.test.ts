/** @jest-environment node */
import 'fake-indexeddb/auto';
import { ownNote } from '@dorvel/core/notes';
import { changeMaker } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { DeviceStore } from '@/device/store/store';
import { eraseLetGo } from './erase';

const DAY_MS = 86_400_000;
const START = Date.UTC(2026, 10, 1, 12);
let now = START;
const make = changeMaker({ clock: createClock('a', () => now), newId: uuidv7, now: () => now });
const passage = { exact: 'eelgrass', prefix: '', suffix: '', start: 4, copyId: null };
let store: DeviceStore;
beforeEach(() => {
  now = START;
  store = new DeviceStore(uuidv7());
});
afterEach(() => store.delete());

async function letGo(): Promise<string> {
  const save = make.save({ address: `https://x.example/${uuidv7()}` });
  await store.commitAll([save, make.choose(save.itemId, { stage: 'let-go' })]);
  return save.itemId;
}

it('what was let go stays for 30 days, and is gone on the next, with what was removed from it', async () => {
  const itemId = await letGo();
  const highlight = make.highlight(itemId, 'key', passage);
  await store.commit(highlight);
  const made = await store.highlights.get(highlight.highlightId);
  await store.commit(make.changeHighlight(made!, { removed: true }));
  expect(await eraseLetGo(store, START + 30 * DAY_MS - 1)).toEqual([]);
  expect(await store.items.count()).toBe(1);
  expect(await eraseLetGo(store, START + 30 * DAY_MS + 1)).toEqual([itemId]);
  expect([await store.items.count(), await store.highlights.count()]).toEqual([0, 0]);
  expect(store.itemsAtHand.has(itemId)).toBe(false);
});

it('what was brought back meanwhile stays, and what the reader has written on', async () => {
  const back = await letGo();
  now += 29 * DAY_MS;
  await store.commit(make.choose(back, { stage: 'inbox' }));
  now = START;
  const [noted, marked, carded, own] = [await letGo(), await letGo(), await letGo(), await letGo()];
  await store.commit(make.note(ownNote.ofItem(own), { text: 'Ask the harbour office.' }));
  await store.commit(make.note({ itemId: noted, on: { kind: 'item' } }, { text: 'Mine.' }));
  await store.commit(make.highlight(marked, 'key', passage));
  await store.commit(make.card({ itemId: carded, highlightId: null, passage: null }, { front: 'q', back: 'a' }));
  expect(await eraseLetGo(store, START + 90 * DAY_MS)).toEqual([]);
});

it('what stands in a dossier stays, until it is taken out of it', async () => {
  const itemId = await letGo();
  const entry = make.entry(uuidv7(), { kind: 'item', itemId }, { rank: 'a0' });
  await store.commit(entry);
  expect(await eraseLetGo(store, START + 90 * DAY_MS)).toEqual([]);
  const made = await store.entries.get(entry.entryId);
  await store.commit(make.changeEntry(made!, { removed: true }));
  expect(await eraseLetGo(store, START + 90 * DAY_MS)).toEqual([itemId]);
});
