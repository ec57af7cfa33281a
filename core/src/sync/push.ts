import type { Mutation } from '../records';
import { PUSH_LIMIT } from './protocol';

/** A push may have this many bytes; the server takes a little more. */
const MAX_PUSH_BYTES = 7_000_000;

/** The bytes that something takes on its way, as JSON in UTF-8: what a server counts. */
export function bytesOnTheWay(value: unknown): number {
  return new TextEncoder().encode(JSON.stringify(value)).length;
}

/**
 * As many of the first changes as one push may carry, and at least one: of one that is too large by itself the server has
 * to say so.
 */
export function withinPush<Entry extends { mutation: Mutation }>(waiting: readonly Entry[]): Entry[] {
  let bytes = 0;
  const first = waiting.slice(0, PUSH_LIMIT);
  const end = first.findIndex(({ mutation }) => {
    bytes += bytesOnTheWay(mutation) + 1;
    return bytes > MAX_PUSH_BYTES;
  });
  return end === -1 ? first : first.slice(0, Math.max(1, end));
}
