import type { Item } from '@dorvel/core/model';
import Dexie, { type ObservabilitySet, RangeSet } from 'dexie';
import type { DeviceStore } from './store';

type Items = ReadonlyMap<string, Item>;

/**
 * Follows the items of a store: all of them once, then only those that have changed, in this tab or in another.
 *
 * @param told the items by id, at first and after each change; a new map each time, in which what has not changed is the same object
 * @param failed told why they could not be read; it goes on with the next change
 * @returns ends it
 */
export function feedItems(
  store: DeviceStore,
  told: (items: Items) => void,
  failed: (error: unknown) => void,
): () => void {
  const here = `idb://${store.name}/${store.items.name}/`;
  let items: Items | null = null;
  /** Ids of items that have changed since they were read; all is read again when there are too many to name. */
  let changed: Set<string> | 'many' = 'many';
  let isReading = false;
  let isOver = false;
  const goesOn = () => !isOver;

  const read = async (): Promise<Items> => {
    const now = changed;
    changed = new Set();
    if (now === 'many' || items === null) {
      const all = await store.items.toArray();
      return new Map(all.map((item) => [item.id, item]));
    }
    const ids = [...now];
    const found = await store.items.bulkGet(ids);
    const next = new Map(items);
    found.forEach((item, n) => {
      if (item) next.set(item.id, item);
      else next.delete(ids[n] ?? '');
    });
    return next;
  };
  const readOn = async () => {
    if (isReading) return;
    isReading = true;
    try {
      while (goesOn() && (changed === 'many' || changed.size > 0)) {
        items = await read();
        if (goesOn()) told(items);
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
    void readOn();
  };
  Dexie.on('storagemutated', mutated);
  void readOn();
  return () => {
    isOver = true;
    Dexie.on.storagemutated.unsubscribe(mutated);
  };
}
