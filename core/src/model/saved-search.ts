import { z } from 'zod';
import { extensible } from './extensible';
import { Id, Instant } from './ids';
import { stamped } from './register';

/** Where is looked: in what others wrote, in what the reader wrote, or in both. */
export const Scope = z.enum(['all', 'articles', 'writing']);
export type Scope = z.infer<typeof Scope>;

/** A query that the reader keeps. */
export const SavedSearch = extensible({
  id: Id,
  madeAt: Instant,
  choices: extensible({
    written: stamped(z.string().trim().min(1).max(1000)),
    scope: stamped(Scope),
    removed: stamped(z.boolean()),
  }),
});
export type SavedSearch = z.infer<typeof SavedSearch>;
