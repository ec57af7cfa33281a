import type { Item } from '../model';

/** Minutes of an item that are still to be read, from the loose end on. */
export function minutesLeft(item: Item): number {
  const minutes = item.capture.page?.minutes ?? 0;
  return item.choices.finishedAt.value !== null ? 0 : minutes * (1 - goOnFrom(item));
}

/** The fraction at which the reader goes on: where they stopped last, even when they have been further. */
export function goOnFrom(item: Item): number {
  return item.progress.position?.value.fraction ?? 0;
}

/** The fraction that is passed: all of what is finished. */
export function passedOf(item: Item): number {
  return item.choices.finishedAt.value !== null ? 1 : item.progress.furthest;
}
