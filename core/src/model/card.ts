import { z } from 'zod';
import { extensible } from './extensible';
import { MarkedPassage } from './highlight';
import { Id, Instant } from './ids';
import { stamped } from './register';

const MAX_SIDE_LENGTH = 2000;
export const CardText = z.string().max(MAX_SIDE_LENGTH);

/** How well something was recalled, worst first. The four grades of FSRS. */
export const RecallGrade = z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)]);
export type RecallGrade = z.infer<typeof RecallGrade>;

/** One answer to one question of a card. It never changes but for being taken back. */
export const Recall = z.object({
  id: Id,
  /** The gap that was asked for; 0 for a card with a question of its own. */
  gap: z.number().int().min(0).max(99),
  at: Instant,
  grade: RecallGrade,
  undone: z.boolean(),
});
export type Recall = z.infer<typeof Recall>;

/** Where a card comes from. */
export const CardSource = z.object({
  itemId: Id,
  highlightId: Id.nullable(),
  passage: MarkedPassage.nullable(),
});

/**
 * A question and its answer, or a sentence with gaps, made from a passage. When it is asked again follows from its
 * recalls (core/cards) and is not stored.
 */
export const Card = extensible({
  id: Id,
  madeAt: Instant,
  source: CardSource.nullable(),
  choices: extensible({
    /** The question, or the sentence with its gaps in double brackets: `High water is [[twice]] a day.` */
    front: stamped(CardText),
    /** The answer; empty for a sentence with gaps. */
    back: stamped(CardText),
    /** It is not asked until the reader wants it again. */
    paused: stamped(z.boolean()),
    removed: stamped(z.boolean()),
  }),
  recalls: z.record(Id, Recall),
});
export type Card = z.infer<typeof Card>;
