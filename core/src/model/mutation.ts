import { z } from 'zod';
import { Activity } from './activity';
import { TextAnchor } from './anchor';
import { Day, Fraction, Id, Instant, Stamp } from './ids';
import { Stage, Tally } from './item';
import { Spans } from './spans';

const base = { id: Id, itemId: Id, stamp: Stamp };

/** A new item. Repeating it with the same itemId changes nothing. */
const SaveMutation = z.object({
  ...base,
  type: z.literal('save'),
  address: z.string().trim().min(1).max(8192),
  savedAt: Instant,
});

/** The reader decided something, or something was put before them; only the fields named change. */
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
      comeBackOn: Day.nullable(),
      shown: Tally,
      passedOver: Tally,
    })
    .partial(),
});

/** The reader moved on in the text. */
const ProgressMutation = z.object({
  ...base,
  type: z.literal('progress'),
  furthest: Fraction,
  position: TextAnchor,
  /** What went by ear since the last such change. */
  heard: Spans.default([]),
});

/** The reader asks for the page to be fetched again. */
const RefetchMutation = z.object({ ...base, type: z.literal('refetch') });

/** A sitting began, or has grown. */
const ActivityMutation = z.object({ ...base, type: z.literal('activity'), activity: Activity });

/** Every change a device can make. Applied at once on the device, then sent; see core/sync. */
export const Mutation = z.discriminatedUnion('type', [
  SaveMutation,
  ChooseMutation,
  ProgressMutation,
  RefetchMutation,
  ActivityMutation,
]);
export type Mutation = z.infer<typeof Mutation>;
/** The changes that are changes of an item. */
export type ItemMutation = Exclude<Mutation, { type: 'activity' }>;
export type ChoiceChanges = z.infer<typeof ChooseMutation>['set'];
