import { z } from 'zod';
import { CONTEXT_LENGTH } from './context-length';
import { extensible } from './extensible';
import { Day, Id, Instant } from './ids';
import { stamped, stampedSince } from './register';

/** What a highlight is for. */
export const HighlightKind = z.enum(['key', 'question', 'quote', 'to-do', 'doubt']);
export type HighlightKind = z.infer<typeof HighlightKind>;

const MAX_PASSAGE_LENGTH = 20_000;

/**
 * A passage that survives changes of its text, after the W3C Web Annotation Data Model (2017): what it says and what
 * stands around it (4.2.4, Text Quote Selector), and where it stood (4.2.5, Text Position Selector).
 */
export const MarkedPassage = z.object({
  exact: z.string().min(1).max(MAX_PASSAGE_LENGTH),
  prefix: z.string().max(CONTEXT_LENGTH),
  suffix: z.string().max(CONTEXT_LENGTH),
  /** Offset of its first character in the plain text of the copy (core/text); null when it was marked on the live page. */
  start: z.number().int().nonnegative().nullable(),
  /** The copy in which it was marked. */
  copyId: Id.nullable(),
});
export type MarkedPassage = z.infer<typeof MarkedPassage>;

/** How far the reader is with putting a passage in their own words. */
export const WorkedOver = z.object({
  /** How often it was laid before them, and the day on which it was last. */
  times: z.number().int().nonnegative(),
  lastOn: Day.nullable(),
  /** They want it no more. */
  done: z.boolean(),
});
export type WorkedOver = z.infer<typeof WorkedOver>;
export const NOT_WORKED_OVER: WorkedOver = { times: 0, lastOn: null, done: false };

/** What the reader decides about a highlight; each field a register of its own. */
const HighlightChoices = extensible({
  kind: stamped(HighlightKind),
  passage: stamped(MarkedPassage),
  removed: stamped(z.boolean()),
  workedOver: stampedSince(WorkedOver, NOT_WORKED_OVER),
});

/** A passage that the reader marked. */
export const Highlight = extensible({
  id: Id,
  itemId: Id,
  madeAt: Instant,
  choices: HighlightChoices,
});
export type Highlight = z.infer<typeof Highlight>;
