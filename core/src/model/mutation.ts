import { z } from 'zod';
import { TextAnchor } from './anchor';
import { Fraction, Id, Instant, Stamp } from './ids';
import { Stage } from './item';

const base = { id: Id, itemId: Id, stamp: Stamp };

/** A new item. Repeating it with the same itemId changes nothing. */
const SaveMutation = z.object({
  ...base,
  type: z.literal('save'),
  address: z.string().trim().min(1).max(8192),
  savedAt: Instant,
});

/** The reader decided something; only the fields named change. */
const ChooseMutation = z.object({
  ...base,
  type: z.literal('choose'),
  set: z
    .object({
      stage: Stage,
      title: z.string().trim().min(1).max(500).nullable(),
      queueRank: z.number(),
      raisedAt: Instant,
      finishedAt: Instant.nullable(),
    })
    .partial(),
});

/** The reader moved on in the text. */
const ProgressMutation = z.object({
  ...base,
  type: z.literal('progress'),
  furthest: Fraction,
  position: TextAnchor,
});

/** The reader asks for the page to be fetched again. */
const RefetchMutation = z.object({ ...base, type: z.literal('refetch') });

/** Every change a device can make. Applied at once on the device, then sent; see core/sync. */
export const Mutation = z.discriminatedUnion('type', [
  SaveMutation,
  ChooseMutation,
  ProgressMutation,
  RefetchMutation,
]);
export type Mutation = z.infer<typeof Mutation>;
export type ChoiceChanges = z.infer<typeof ChooseMutation>['set'];
