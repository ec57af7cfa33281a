import { z } from 'zod';
import { Activity } from './activity';
import { TextAnchor } from './anchor';
import { FeedMode } from './feed';
import { HighlightKind, MarkedPassage } from './highlight';
import { Day, Fraction, Id, Instant, Stamp } from './ids';
import { HowMuch, PushedText } from './how-much';
import { MOST_TIDYINGS, Note, Stage, Tally, Tidying } from './item';
import { SavedSearch, Scope } from './saved-search';
import { Spans } from './spans';
import { TagName, tagKey } from './tag';

const base = { id: Id, itemId: Id, stamp: Stamp };

/** A new item. Repeating it with the same itemId changes nothing. */
const SaveMutation = z.object({
  ...base,
  type: z.literal('save'),
  address: z.string().trim().min(1).max(8192),
  savedAt: Instant,
  /** Words and pictures when nothing is said. */
  howMuch: HowMuch.optional(),
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
      howMuch: HowMuch,
      tidied: z.array(Tidying).max(MOST_TIDYINGS),
      note: Note,
    })
    .partial(),
});

/** Tags were put on or, as null, taken off, by key. */
const TagMutation = z.object({
  ...base,
  type: z.literal('tag'),
  set: z
    .record(z.string().max(200), TagName.nullable())
    .refine(
      (set) => Object.entries(set).every(([key, name]) => name === null || tagKey(name) === key),
      'A tag stands under its own key.',
    ),
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

/** The reader gives the item's text by hand, where the page itself did not come through or only a part is wanted. */
const ProvideMutation = z.object({ ...base, type: z.literal('provide'), given: PushedText });

/** A sitting began, or has grown. */
const ActivityMutation = z.object({ ...base, type: z.literal('activity'), activity: Activity });

/** A feed is followed. Repeating it with the same feedId changes nothing. */
const FollowMutation = z.object({
  id: Id,
  stamp: Stamp,
  type: z.literal('follow'),
  feedId: Id,
  address: z.string().trim().min(1).max(8192),
  followedAt: Instant,
});

/** The reader decided something about a feed; only the fields named change. */
const ChangeFeedMutation = z.object({
  id: Id,
  stamp: Stamp,
  type: z.literal('feed'),
  feedId: Id,
  set: z
    .object({
      following: z.boolean(),
      title: z.string().trim().min(1).max(500).nullable(),
      mode: FeedMode,
      tag: TagName.nullable(),
      seenUntil: Instant,
      askedAt: Instant,
    })
    .partial(),
});

/** A passage is marked. Repeating it with the same highlightId changes nothing. */
const MarkMutation = z.object({
  ...base,
  type: z.literal('mark'),
  highlightId: Id,
  madeAt: Instant,
  kind: HighlightKind,
  passage: MarkedPassage,
});

/** The reader decided something about a highlight; only the fields named change. */
const ChangeMarkMutation = z.object({
  ...base,
  type: z.literal('change-mark'),
  highlightId: Id,
  set: z.object({ kind: HighlightKind, passage: MarkedPassage, note: Note, removed: z.boolean() }).partial(),
});

/** A search is kept, or changed, or no longer kept. */
const SearchMutation = z.object({
  id: Id,
  stamp: Stamp,
  type: z.literal('search'),
  searchId: Id,
  madeAt: Instant,
  set: z.object({
    written: SavedSearch.shape.choices.shape.written.shape.value,
    scope: Scope,
    removed: z.boolean(),
  }),
});

/** Every change a device can make. Applied at once on the device, then sent; see core/sync. */
export const Mutation = z.discriminatedUnion('type', [
  SaveMutation,
  ChooseMutation,
  TagMutation,
  ProgressMutation,
  RefetchMutation,
  ProvideMutation,
  ActivityMutation,
  FollowMutation,
  ChangeFeedMutation,
  MarkMutation,
  ChangeMarkMutation,
  SearchMutation,
]);
export type Mutation = z.infer<typeof Mutation>;
/** The changes of what is followed. */
export type FeedMutation = Extract<Mutation, { feedId: string }>;
/** The changes of what is marked. */
export type HighlightMutation = Extract<Mutation, { highlightId: string }>;
export type SearchMutation = Extract<Mutation, { searchId: string }>;
/** The changes that are changes of an item. */
export type ItemMutation = Exclude<
  Mutation,
  { type: 'activity' } | FeedMutation | HighlightMutation | SearchMutation
>;
export type FeedChanges = z.infer<typeof ChangeFeedMutation>['set'];
export type HighlightChanges = z.infer<typeof ChangeMarkMutation>['set'];
export type ChoiceChanges = z.infer<typeof ChooseMutation>['set'];

/** The id of what a change is about: an item, a feed, or a search. */
export function subjectOf(mutation: Mutation): string {
  if ('feedId' in mutation) return mutation.feedId;
  return 'searchId' in mutation ? mutation.searchId : mutation.itemId;
}
