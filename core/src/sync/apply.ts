import { canonicalAddress } from '../address';
import type { ChoiceChanges, Choices, Item, Mutation } from '../model';
import { mergeItems } from './merge';

/** The stamp of a field nobody has touched: older than any real one. */
const NEVER = '000000000-0000-0';

/** A new item as a device makes it, before the server has seen it. */
export function newItem(save: Extract<Mutation, { type: 'save' }>): Item {
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
    },
    progress: { furthest: 0, position: null },
    capture: {
      revision: 0,
      state: 'waiting',
      says: 'Waiting to be fetched.',
      attempts: 0,
      nextTryAt: null,
      addressKey: canonicalAddress(save.address),
      sameAs: null,
      page: null,
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
export function applyMutation(item: Item | undefined, mutation: Mutation): Item | undefined {
  if (mutation.type === 'save') {
    const made = newItem(mutation);
    return item ? mergeItems(item, made) : made;
  }
  if (!item) return undefined;
  switch (mutation.type) {
    case 'choose':
      return mergeItems(item, { ...item, choices: withChanges(item.choices, mutation.set, mutation.stamp) });
    case 'progress':
      return mergeItems(item, {
        ...item,
        progress: {
          furthest: mutation.furthest,
          position: { value: mutation.position, at: mutation.stamp },
        },
      });
    case 'refetch':
      return {
        ...item,
        capture: { ...item.capture, state: 'waiting', says: 'Waiting to be fetched again.', nextTryAt: null },
      };
  }
}

function withChanges(choices: Choices, set: ChoiceChanges, stamp: string): Choices {
  return {
    stage: set.stage === undefined ? choices.stage : { value: set.stage, at: stamp },
    title: set.title === undefined ? choices.title : { value: set.title, at: stamp },
    queueRank: set.queueRank === undefined ? choices.queueRank : { value: set.queueRank, at: stamp },
    raisedAt: set.raisedAt === undefined ? choices.raisedAt : { value: set.raisedAt, at: stamp },
    finishedAt: set.finishedAt === undefined ? choices.finishedAt : { value: set.finishedAt, at: stamp },
  };
}
