import type { Item } from '@dorvel/core/model';
import Dexie, { type ObservabilitySet, RangeSet } from 'dexie';
import { LayeredMap } from './layered-map';
import type { DeviceStore } from './store';

type Items = ReadonlyMap<string, Item>;
/** Ids of what changed, came or went since it was told of last; null when that is not known one by one. */
export type Changed = ReadonlySet<string> | null;
const NONE: Items = new Map();

/** So many of what was saved last are read first, with what waits in Inbox and Queue: a screen of any list. */
const NEWEST = 60;
/** So many are read at once afterwards, so that a press is answered between two reads. */
const AT_ONCE = 100;

/** Lets what the reader did meanwhile happen first. Not by a timer: in a tab in the background they come once a second. */
const pause = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

/**
 * Follows the items of a store: what the first screens show, then all of them, then only those that have changed, in this tab
 * or in another.
 *
 * @param told the items by id, at first and after each change; a new map each time, in which what has not changed is the same
 *   object. Whether they are all of them, or only what waits and what was saved last. Which of them have changed
 * @param failed told why they could not be read; it goes on with the next change
 * @param behind told that there are changes which are not read yet, until they are told
 * @returns ends it
 */
export function feedItems(
  store: DeviceStore,
  told: (items: Items, isWhole: boolean, changed: Changed) => void,
  failed: (error: unknown) => void,
  behind: () => void = () => {},
): () => void {
  const here = `idb://${store.name}/${store.items.name}/`;
  let items: Items | null = null;
  /** Ids of items that have changed since they were read; all is read again when there are too many to name. */
  let changed: Set<string> | 'many' = 'many';
  let isReading = false;
  let isOver = false;
  const goesOn = () => !isOver;

  const readFirst = async () => {
    const [waiting, newest] = await Promise.all([
      store.items.where('choices.stage.value').anyOf('inbox', 'queue').toArray(),
      store.items.orderBy('savedAt').reverse().limit(NEWEST).toArray(),
    ]);
    return new Map([...waiting, ...newest].map((item) => [item.id, item]));
  };
  /** All of them; what is known already stays the same object. */
  const readAll = async (known: Items): Promise<Items> => {
    const all = new Map<string, Item>();
    for (let from = ''; goesOn();) {
      const some = await store.items.where('id').above(from).limit(AT_ONCE).toArray();
      for (const item of some) all.set(item.id, known.get(item.id) ?? item);
      const last = some.at(-1);
      if (!last || some.length < AT_ONCE) break;
      from = last.id;
      await pause();
    }
    return all;
  };
  const read = async (): Promise<{ read: Items; which: Changed }> => {
    const now = changed;
    changed = new Set();
    if (items === null) {
      const first = await readFirst();
      if (goesOn()) told(first, false, null);
      return { read: await readAll(first), which: null };
    }
    if (now === 'many') return { read: await readAll(NONE), which: null };
    const ids = [...now];
    const found = await store.items.bulkGet(ids);
    const next = LayeredMap.of(items).with(ids.map((id, n) => [id, found[n]] as const));
    return { read: next, which: now };
  };
  const readOn = async () => {
    if (isReading) return;
    isReading = true;
    try {
      while (goesOn() && (changed === 'many' || changed.size > 0)) {
        const { read: found, which } = await read();
        items = found;
        if (goesOn()) told(items, true, which);
        if (goesOn() && (changed === 'many' || changed.size > 0)) behind();
      }
    } catch (error) {
      changed = 'many';
      if (goesOn()) failed(error);
    } finally {
      isReading = false;
    }
  };
  const mutated = (parts: ObservabilitySet) => {
    // Deletions are named apart from what is put.
    for (const part of [parts[here], parts[`${here}:dels`]])
      for (const { from, to } of part ? RangeSet(part) : [])
        if (changed !== 'many')
          if (typeof from === 'string' && from === to) changed.add(from);
          else changed = 'many';
    if (goesOn() && (changed === 'many' || changed.size > 0)) behind();
    void readOn();
  };
  Dexie.on('storagemutated', mutated);
  void readOn();
  return () => {
    isOver = true;
    Dexie.on.storagemutated.unsubscribe(mutated);
  };
}

/** The items of a store as they are now, for a worker that asks for them now and then. */
export interface FollowedItems {
  /** @throws what reading them threw */
  now(): Promise<Items>;
  end(): void;
}

/** Follows the items of a store, and waits for the first reading of all of them. */
export function followedItems(store: DeviceStore, told: (items: Items) => void = () => {}): FollowedItems {
  let current: Items | null = null;
  let fault: Error | null = null;
  let waiting: { resolve(items: Items): void; reject(error: Error): void }[] = [];
  const end = feedItems(
    store,
    (items, isWhole) => {
      if (!isWhole) return;
      current = items;
      fault = null;
      for (const { resolve } of waiting) resolve(items);
      waiting = [];
      told(items);
    },
    (error) => {
      fault = error instanceof Error ? error : new Error(String(error));
      for (const { reject } of waiting) reject(fault);
      waiting = [];
    },
  );
  return {
    now: () =>
      fault === null && current !== null
        ? Promise.resolve(current)
        : new Promise((resolve, reject) => {
            if (fault === null) waiting.push({ resolve, reject });
            else reject(fault);
          }),
    end,
  };
}
