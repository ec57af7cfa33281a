import { z } from 'zod';
import { extensible } from './extensible';
import { Id, Instant } from './ids';
import { stamped } from './register';

/** What the reader does not want to be reminded by: a name or term, all that a site says, what to do first. */
export const Silenced = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('term'),
    /** By stems; see keyPhrases. */
    key: z.string().min(1).max(400),
    /** As the reader saw it. */
    form: z.string().min(1).max(400),
  }),
  z.object({ kind: z.literal('site'), host: z.string().min(1).max(300) }),
  z.object({ kind: z.literal('first-steps') }),
]);
export type Silenced = z.infer<typeof Silenced>;

/** What is silenced has one record on all devices, whoever silenced it first: its id is made of this name (UUID, version 5). */
export const SILENCES = 'f6f2b0de-1b44-5e8c-9f53-6e5c3a3a8d10';
export function silenceName(what: Silenced): string {
  switch (what.kind) {
    case 'term':
      return `term ${what.key}`;
    case 'site':
      return `site ${what.host}`;
    case 'first-steps':
      return 'first steps';
  }
}

/** What is silenced as the reader saw it; null for the first steps, which have no words of their own. */
export const silencedWords = (what: Silenced): string | null =>
  what.kind === 'term' ? what.form : what.kind === 'site' ? what.host : null;

/** That the reader has silenced something, or let it speak again. */
export const Silence = extensible({
  id: Id,
  madeAt: Instant,
  what: Silenced,
  choices: extensible({ silenced: stamped(z.boolean()) }),
});
export type Silence = z.infer<typeof Silence>;
