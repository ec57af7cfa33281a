import { canonicalAddress } from '../address';
import { NEVER, NO_TALLY, type Item, type ItemMutation, type Tags } from '../model';
import { mergeItems } from './merge';

/** A new item as a device makes it, before the server has seen it. */
export function newItem(save: Extract<ItemMutation, { type: 'save' }>): Item {
  const untouched = <Value>(value: Value) => ({ value, at: NEVER });
  return {
    id: save.itemId,
    address: save.address,
    savedAt: save.savedAt,
    choices: {
      stage: { value: 'inbox', at: save.stamp },
      title: untouched(null),
      queueRank: untouched(0),
      raisedAt: { value: save.savedAt, at: save.stamp },
      finishedAt: untouched(null),
      comeBackOn: untouched(null),
      shown: untouched(NO_TALLY),
      passedOver: untouched(NO_TALLY),
      howMuch: { value: save.howMuch ?? 'words-and-pictures', at: save.stamp },
      tidied: untouched([]),
      note: untouched(''),
    },
    tags: {},
    progress: { furthest: 0, position: null, heard: [] },
    capture: {
      revision: 0,
      state: 'waiting',
      says: 'Waiting to be fetched.',
      attempts: 0,
      nextTryAt: null,
      addressKey: canonicalAddress(save.address),
      sameAs: null,
      page: null,
      copies: [],
      goneSince: null,
    },
  };
}

/**
 * What an item is after a mutation: the same on a device and on the server. Pure, and harmless to repeat.
 *
 * @param item the item now, or undefined when it is not known here
 * @returns the item after; undefined when a change names an item that is not known
 * @throws TypeError when a save carries no http address (the caller has parsed it with readAddress)
 */
export function applyMutation(item: Item | undefined, mutation: ItemMutation): Item | undefined {
  if (mutation.type === 'save') {
    const made = newItem(mutation);
    return item ? mergeItems(item, made) : made;
  }
  if (!item) return undefined;
  switch (mutation.type) {
    case 'choose':
      return mergeItems(item, { ...item, choices: withChanges(item.choices, mutation.set, mutation.stamp) });
    case 'tag': {
      const set = Object.entries(mutation.set).map(([key, value]) => [key, { value, at: mutation.stamp }]);
      return mergeItems(item, { ...item, tags: Object.fromEntries(set) as Tags });
    }
    case 'progress':
      return mergeItems(item, {
        ...item,
        progress: {
          furthest: mutation.furthest,
          position: { value: mutation.position, at: mutation.stamp },
          heard: mutation.heard,
        },
      });
    case 'refetch':
      return waiting(item, 'Waiting to be fetched again.');
    case 'provide':
      return waiting(item, 'The text that you gave is being made ready.');
  }
}

function waiting(item: Item, says: string): Item {
  return { ...item, capture: { ...item.capture, state: 'waiting', says, nextTryAt: null } };
}

/** Registers of which some were set. */
export function withChanges<Registers extends object>(
  registers: Registers,
  set: Readonly<Record<string, unknown>>,
  stamp: string,
): Registers {
  const changed = Object.entries(set)
    .filter(([, value]) => value !== undefined)
    .map(([field, value]) => [field, { value, at: stamp }]);
  return { ...registers, ...(Object.fromEntries(changed) as Partial<Registers>) };
}
