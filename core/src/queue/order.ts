import type { Item } from '../model';

/** A rank in the Queue that an item gets. */
export interface NewRank {
  id: string;
  queueRank: number;
}

/** Ranks nearer to one another than this cannot be told apart for long. */
const CLOSEST = 1e-6;

/**
 * What changes when an item is put in another place of the Queue: its own rank, halfway between its new neighbours; or,
 * where these leave no room, the ranks of all.
 *
 * @param queue in its order
 * @param from place of the item that moves
 * @param to the place that it gets
 */
export function moveInQueue(queue: readonly Item[], from: number, to: number): NewRank[] {
  const moving = queue[from];
  if (!moving || from === to || to < 0 || to >= queue.length) return [];
  const others = queue.filter((_, at) => at !== from);
  const rank = (item: Item | undefined) => item?.choices.queueRank.value;
  const before = rank(others[to - 1]);
  const after = rank(others[to]);
  const { id } = moving;
  if (before === undefined) return [{ id, queueRank: (after ?? 0) - 1 }];
  if (after === undefined) return [{ id, queueRank: before + 1 }];
  if (after - before > CLOSEST) return [{ id, queueRank: (before + after) / 2 }];
  return [...others.slice(0, to), moving, ...others.slice(to)].flatMap((item, at) =>
    rank(item) === at ? [] : [{ id: item.id, queueRank: at }],
  );
}
