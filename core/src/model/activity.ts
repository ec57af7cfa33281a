import { z } from 'zod';
import { extensible } from './extensible';
import { Day, Id, Instant } from './ids';

/** What carried the words: the reader's eyes, or the voice. */
export const Carrier = z.enum(['eyes', 'ears']);
export type Carrier = z.infer<typeof Carrier>;

/**
 * One sitting with one item. It grows while it lasts and is sent again under the same id; the longer one holds,
 * so that repeating and reordering are harmless.
 */
export const Activity = extensible({
  id: Id,
  itemId: Id,
  startedAt: Instant,
  /** The reader's own calendar day at the start, whatever the zone of whoever looks at it later. */
  day: Day,
  by: Carrier,
  /** Time spent, pauses left out. */
  seconds: z.number().min(0).max(86_400),
  /** Words passed. */
  words: z.number().int().min(0).max(1_000_000),
});
export type Activity = z.infer<typeof Activity>;
