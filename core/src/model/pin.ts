import { z } from 'zod';
import { extensible } from './extensible';
import { Id, Instant } from './ids';
import { stamped } from './register';

/** What can be pinned to Now. */
export const PinSubject = z.enum(['item', 'note', 'search']);
export type PinSubject = z.infer<typeof PinSubject>;

/** That the reader wants something to stand on Now, or no longer. */
export const Pin = extensible({
  /** Of what is pinned: two devices that pin it mean one record. */
  id: Id,
  madeAt: Instant,
  of: PinSubject,
  choices: extensible({ pinned: stamped(z.boolean()) }),
});
export type Pin = z.infer<typeof Pin>;
