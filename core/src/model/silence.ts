import { z } from 'zod';
import { extensible } from './extensible';
import { Id, Instant } from './ids';
import { stamped } from './register';

/** What the reader does not want to be reminded by: a name or term, or all that a site says. */
export const Silenced = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('term'),
    /** By stems; see keyPhrases. */
    key: z.string().min(1).max(400),
    /** As the reader saw it. */
    form: z.string().min(1).max(400),
  }),
  z.object({ kind: z.literal('site'), host: z.string().min(1).max(300) }),
]);
export type Silenced = z.infer<typeof Silenced>;

/** What is silenced has one record on all devices, whoever silenced it first: its id is made of this name (UUID, version 5). */
export const SILENCES = 'f6f2b0de-1b44-5e8c-9f53-6e5c3a3a8d10';
export const silenceName = (what: Silenced): string =>
  what.kind === 'term' ? `term ${what.key}` : `site ${what.host}`;

/** That the reader has silenced something, or let it speak again. */
export const Silence = extensible({
  id: Id,
  madeAt: Instant,
  what: Silenced,
  choices: extensible({ silenced: stamped(z.boolean()) }),
});
export type Silence = z.infer<typeof Silence>;
