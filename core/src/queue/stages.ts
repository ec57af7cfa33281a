import type { Item, Stage } from '../model';
import type { ItemChoices } from '../records';

/** Unread, begun or read through; follows from progress, never stored. */
export type ReadingState = 'unread' | 'reading' | 'finished';

export function readingState(item: Item): ReadingState {
  if (item.choices.finishedAt.value !== null) return 'finished';
  return item.progress.furthest > 0 ? 'reading' : 'unread';
}

/** True when an item belongs to a stage's list. What was finished and then kept is in both lists. */
export function inStage(item: Item, stage: Stage): boolean {
  const own = item.choices.stage.value;
  return own === stage || (stage === 'finished' && own === 'kept' && item.choices.finishedAt.value !== null);
}

/** The order of the Queue: by rank, then newest first. For Array.prototype.sort. */
export function byQueueOrder(a: Item, b: Item): number {
  return a.choices.queueRank.value - b.choices.queueRank.value || byRaised(a, b);
}

/** Newest save first; 0 for an item and itself alone. For Array.prototype.sort. */
export function byRaised(a: Item, b: Item): number {
  return b.choices.raisedAt.value - a.choices.raisedAt.value || Number(a.id < b.id) - Number(a.id > b.id);
}

/** A rank above all the items given. */
export function rankOnTop(queue: readonly Item[]): number {
  return Math.min(0, ...queue.map((item) => item.choices.queueRank.value)) - 1;
}

/** A rank below all the items given. */
export function rankAtEnd(queue: readonly Item[]): number {
  return Math.max(0, ...queue.map((item) => item.choices.queueRank.value)) + 1;
}

/**
 * What changes when an item goes to a stage.
 *
 * @param queue the items now in the Queue, for the rank
 * @param place where in the Queue it goes; ignored for other stages
 */
export function moveTo(stage: Stage, queue: readonly Item[], now: number, place: 'top' | 'end' = 'end'): ItemChoices {
  if (stage === 'queue') {
    return { stage, queueRank: place === 'top' ? rankOnTop(queue) : rankAtEnd(queue), finishedAt: null };
  }
  return stage === 'finished' ? { stage, finishedAt: now } : { stage };
}

/**
 * What changes when a page is saved that the library already has: up to the top of where it is; out of
 * *let go*, back to the Inbox.
 */
export function saveAgain(item: Item, queue: readonly Item[], now: number): ItemChoices {
  const stage = item.choices.stage.value;
  if (stage === 'let-go') return { stage: 'inbox', raisedAt: now };
  return stage === 'queue' ? { raisedAt: now, queueRank: rankOnTop(queue) } : { raisedAt: now };
}
