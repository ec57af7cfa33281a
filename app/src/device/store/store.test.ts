/** @jest-environment node */
import 'fake-indexeddb/auto';
import { type Highlight, type Item, LAST_INSTANT, placeOfWord, spanOf, type Spans } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { createRegistry, Mutation, newItem, REGISTRY } from '@dorvel/core/records';
import { DRAFTS } from '@dorvel/core/testing';
import Dexie from 'dexie';
import { DeviceStore } from './store';

const ITEM = '01900000-0000-7000-8000-000000000001';
const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const stamp = (n: number) => `${n.toString(36).padStart(9, '0')}-0000-a`;
const save: Extract<Mutation, { type: 'save' }> = {
  type: 'save',
  id: uuid(2),
  itemId: ITEM,
  address: 'https://example.org/a',
  savedAt: 5,
  stamp: stamp(1),
};
const progress = (n: number, fraction: number, heard: Spans = []): Mutation => ({
  type: 'progress',
  id: uuid(100 + n),
  itemId: ITEM,
  stamp: stamp(n),
  furthest: fraction,
  position: { block: 0, char: 0, offset: n, quote: '', before: '', fraction },
  heard,
});
const sitting = (n: number, seconds: number): Mutation => ({
  type: 'activity',
  id: uuid(200 + n),
  itemId: ITEM,
  stamp: stamp(n),
  activity: {
    id: uuid(300),
    itemId: ITEM,
    startedAt: 5,
    day: '2026-11-24',
    by: 'ears',
    seconds,
    words: seconds * 3,
  },
});

/** A record of each kind but the item. */
const DRAFTED = REGISTRY.kinds.slice(1).map((kind) => {
  const change = { ...DRAFTS[kind.name]!(1).makes, id: uuid(9), stamp: stamp(1) };
  return { plural: kind.plural, record: kind.apply(undefined, change)! };
});

let made = 0;
let store: DeviceStore;
beforeEach(() => {
  store = new DeviceStore(`test-${String(++made)}`);
});
afterEach(() => store.delete());

describe('the store on the device', () => {
  it('sends what was heard with the latest place, though earlier places are dropped', async () => {
    await store.commit(save);
    await store.commit(progress(2, 0.2, spanOf(0, 0.2)));
    await store.commit(progress(3, 0.4, spanOf(0.2, 0.3)));
    await store.commit(progress(4, 0.5));
    const [, only, ...rest] = (await store.outbox.toArray()).map(({ mutation }) => mutation);
    expect(rest).toEqual([]);
    expect(only).toMatchObject({ furthest: 0.5, heard: spanOf(0, 0.3) });
    expect((await store.items.get(ITEM))?.progress.heard).toEqual(spanOf(0, 0.3));
  });

  it('sends how far the reader was, though they went back before it was sent', async () => {
    await store.commit(save);
    await store.commit(progress(2, 0.9));
    await store.commit(progress(3, 0.4));
    const sent = (await store.outbox.toArray()).map(({ mutation }) => mutation);
    expect(sent.slice(1)).toMatchObject([{ furthest: 0.9, position: { fraction: 0.4 } }]);
  });

  it('keeps one record of a sitting, however often it has grown', async () => {
    await store.commit(save);
    await store.commit(sitting(2, 30));
    await store.commit(sitting(3, 60));
    expect((await store.activities.toArray()).map(({ seconds }) => seconds)).toEqual([60]);
    expect(await store.outbox.count()).toBe(2);
    const { activity } = sitting(2, 30) as Extract<Mutation, { type: 'activity' }>;
    await store.receive({ records: { activities: [activity] }, cursor: 5 });
    expect((await store.activities.get(uuid(300)))?.seconds).toBe(60);
  });

  it('has items at hand as they were written last, and nothing of what was not written', async () => {
    await store.commit(save);
    await store.commit(progress(2, 0.2));
    expect(store.itemsAtHand.get(ITEM)).toEqual(await store.items.get(ITEM));
    expect(store.itemsAtHand.get(ITEM)?.progress.furthest).toBe(0.2);
    const unknown = { ...progress(4, 0.1), itemId: uuid(77) } as Mutation;
    await expect(store.commitAll([progress(3, 0.9), unknown])).rejects.toThrow();
    expect(store.itemsAtHand.get(ITEM)?.progress.furthest).toBe(0.2);
  });

  it('takes many changes, or none of them when one cannot be', async () => {
    const unknown = { ...progress(3, 0.1), itemId: uuid(77) } as Mutation;
    await expect(store.commitAll([save, progress(2, 0.2), unknown])).rejects.toThrow(/no item/);
    expect([await store.items.count(), await store.outbox.count()]).toEqual([0, 0]);
    await store.commitAll([save, progress(2, 0.2)]);
    expect([await store.items.count(), await store.outbox.count()]).toEqual([1, 2]);
  });

  it('applies a change at once and keeps it for the server', async () => {
    await store.commit(save);
    expect((await store.items.get(ITEM))?.choices.stage.value).toBe('inbox');
    expect((await store.outbox.toArray()).map(({ mutation }) => mutation)).toEqual([save]);
  });

  it('sends only the last of many places in one article, in the order of the other changes', async () => {
    await store.commit(save);
    for (let n = 2; n < 8; n++) await store.commit(progress(n, n / 10));
    await store.commit({
      type: 'choose',
      id: uuid(50),
      itemId: ITEM,
      stamp: stamp(9),
      set: { stage: 'queue' },
    });
    expect((await store.outbox.orderBy('place').toArray()).map(({ mutation }) => mutation.id)).toEqual([
      save.id,
      uuid(107),
      uuid(50),
    ]);
    expect((await store.items.get(ITEM))?.progress.furthest).toBe(0.7);
  });

  it('does neither when it cannot do both', async () => {
    await expect(store.commit(progress(3, 0.5))).rejects.toThrow('no item');
    expect(await store.outbox.count()).toBe(0);
  });

  it('takes in what the server sends without losing what waits to be sent', async () => {
    await store.commit(save);
    await store.commit({
      type: 'choose',
      id: uuid(50),
      itemId: ITEM,
      stamp: stamp(9),
      set: { stage: 'kept' },
    });
    const server = newItem(save);
    server.choices.stage = { value: 'queue', at: stamp(4) };
    server.capture = {
      ...server.capture,
      revision: 3,
      state: 'arrived',
      outcome: { code: 'arrived', missingPictures: 0 },
    };
    expect(await store.receive({ records: { items: [server] }, cursor: 7 })).toEqual([]);
    const item = await store.items.get(ITEM);
    expect(item?.choices.stage.value).toBe('kept');
    expect(item?.capture.state).toBe('arrived');
    expect(await store.cursor()).toBe(7);
  });

  it('says which items now stand for one that this device had saved', async () => {
    await store.commit(save);
    const alias = newItem(save);
    alias.capture = { ...alias.capture, revision: 3, duplicateOf: uuid(77) };
    expect(await store.receive({ records: { items: [alias] }, cursor: 8 })).toEqual([uuid(77)]);
    expect(await store.receive({ records: { items: [alias] }, cursor: 9 })).toEqual([]);
  });
});

describe('a store of an earlier version', () => {
  const STORES = [
    { items: 'id', copies: 'id, itemId', outbox: '++place, itemId', marks: 'name' },
    { copies: 'id, itemId, textOnly', activities: 'id', profiles: 'copyId' },
    { findables: 'itemId' },
    { feeds: 'id' },
    { highlights: 'id, itemId', searches: 'id' },
    { notes: 'id, itemId', cards: 'id, source.itemId' },
    { items: 'id, capture.addressKey, choices.stage.value' },
    { aside: 'id' },
  ];

  it.each(STORES.map((_, n) => n + 1))('%d has all that it had, and sends what it had not sent', async (version) => {
    const name = `of-version-${version}`;
    const before = new Dexie(`dorvel-${name}`);
    STORES.slice(0, version).forEach((stores, n) => before.version(n + 1).stores(stores));
    const unsent = [save, progress(3, 0.5), sitting(4, 20)];
    const { outcome: _outcome, duplicateOf, ...capture } = newItem(save).capture;
    const old = { ...capture, sameAs: duplicateOf, says: 'Waiting to be fetched.' };
    await before.table('items').put({ ...newItem(save), capture: old });
    for (const mutation of unsent) await before.table('outbox').add({ itemId: ITEM, mutation });
    await before.table('marks').bulkPut([
      { name: 'cursor', value: 41 },
      { name: 'epoch', value: 'one' },
    ]);
    const rows = DRAFTED.filter(({ plural }) => before.tables.some((table) => table.name === plural));
    for (const { plural, record } of rows) await before.table(plural).put(record);
    before.close();

    const after = new DeviceStore(name);
    const item = newItem(save);
    item.capture.outcome = { code: 'said', words: 'Waiting to be fetched.' };
    expect(await after.items.toArray()).toEqual([item]);
    expect((await after.outbox.toArray()).map(({ recordId, mutation }) => [recordId, mutation])).toEqual([
      [ITEM, save],
      [ITEM, progress(3, 0.5)],
      [uuid(300), sitting(4, 20)],
    ]);
    // Kinds have become others since: all is pulled once more.
    expect([await after.cursor(), await after.epoch()]).toEqual([0, 'one']);
    for (const { plural, record } of rows) expect(await after.table(plural).toArray()).toEqual([record]);
    // It can be written to.
    await after.commit(progress(5, 0.6));
    expect(await after.outbox.count()).toBe(3);
    await after.delete();
  });
});

it('pulls all once more when there are kinds of record that it had not pulled', async () => {
  await store.receive({ records: {}, cursor: 12 });
  expect(await store.cursor()).toBe(12);
  const newer = REGISTRY.kinds.map((kind) => (kind.name === 'card' ? { ...kind, version: 2 } : kind));
  store.close();
  const name = `test-${String(made)}`;
  const updated = new DeviceStore(name, createRegistry(newer));
  expect(await updated.cursor()).toBe(0);
  await updated.receive({ records: {}, cursor: 13 });
  expect(await updated.cursor()).toBe(13);
  updated.close();
  store = new DeviceStore(name);
});

it('sets instants right that an earlier version took and no calendar has', async () => {
  const item = newItem({ ...save, savedAt: Number.MAX_SAFE_INTEGER });
  const before = new Dexie('dorvel-old-one');
  before.version(7).stores({ items: 'id, capture.addressKey, choices.stage.value', marks: 'name' });
  await before.table('items').put(item);
  before.close();
  const after = new DeviceStore('old-one');
  expect(await after.items.get(ITEM)).toMatchObject({
    savedAt: LAST_INSTANT,
    choices: { raisedAt: { value: LAST_INSTANT }, finishedAt: { value: null } },
  });
  await after.delete();
});

it('has the notes of items and highlights apart, with those that were not sent', async () => {
  const before = new Dexie('dorvel-noted');
  before.version(10).stores({
    items: 'id',
    highlights: 'id, itemId',
    notes: 'id, itemId',
    outbox: '++place, recordId',
    aside: 'id',
    meta: 'name',
  });
  const note = (value: string, at: string) => ({ note: { value, at } });
  const at = '000000002-0000-a';
  const item = newItem(save);
  const { record, plural } = DRAFTED.find(({ plural: each }) => each === 'highlights')!;
  const highlight = record as Highlight;
  await before.table('items').put({ ...item, choices: { ...item.choices, ...note('Of the item.', at) } });
  await before.table(plural).put({ ...highlight, choices: { ...highlight.choices, ...note('Of the passage.', at) } });
  const noting = { id: uuid(700), stamp: at, type: 'choose', itemId: ITEM, set: { note: 'Of the item.' } };
  const both = { ...noting, id: uuid(701), set: { note: 'Refused.', stage: 'queue' } };
  const mark = {
    ...noting,
    id: uuid(702),
    type: 'change-mark',
    itemId: highlight.itemId,
    highlightId: highlight.id,
    set: { note: 'Of the passage.' },
  };
  await before.table('outbox').bulkAdd([noting, mark].map((mutation) => ({ recordId: 'x', mutation })));
  await before.table('aside').put({ id: both.id, recordId: ITEM, mutation: both, says: 'It does not fit.', at: 1 });
  before.close();

  const after = new DeviceStore('noted');
  const notes = await after.notes.toArray();
  expect(notes.map((each) => [each.id, each.on.kind, noteText(each)]).sort()).toEqual(
    [
      [ITEM, 'item', 'Of the item.'],
      [highlight.id, 'highlight', 'Of the passage.'],
    ].sort(),
  );
  expect(await after.items.orderBy('savedAt').toArray()).toEqual([item]);
  expect(await after.highlights.toArray()).toEqual([highlight]);
  const sent = (await after.outbox.toArray()).map(({ mutation }) => mutation);
  expect(sent).toMatchObject([
    { id: noting.id, type: 'write', noteId: ITEM, set: { text: 'Of the item.' } },
    { id: mark.id, type: 'write', noteId: highlight.id, set: { text: 'Of the passage.' } },
  ]);
  // What they make is what is here.
  for (const mutation of sent) await after.commit(Mutation.parse(mutation));
  expect(await after.notes.toArray()).toEqual(notes);
  expect((await after.aside.toArray()).map(({ mutation: { type } }) => type).sort()).toEqual(['choose', 'write']);
  await after.delete();
});

describe('items that this device has from before', () => {
  const { putRight: _none, choices, ...rest } = newItem(save);
  const read = async (before: object) => {
    const store = new DeviceStore(`before ${JSON.stringify(before).length}`);
    await store.items.put({ ...rest, ...before } as Item);
    const item = await store.items.get(ITEM);
    store.close();
    return item;
  };

  it('have the fields that pictures brought', async () => {
    const { kindSaid: _kind, typed: _typed, place: _place, ...older } = choices;
    expect(await read({ choices: older })).toEqual(newItem(save));
  });

  it('keep the words that were put right, each in a register of its own', async () => {
    const word = { hash: 'a'.repeat(64), place: 3, was: 'l2', is: '12' };
    const { place: _place, ...older } = choices;
    const item = await read({ choices: { ...older, putRight: { value: [word], at: stamp(4) } } });
    expect(item?.putRight).toEqual({ [placeOfWord(word.hash, 3)]: { value: { was: 'l2', is: '12' }, at: stamp(4) } });
  });
});
