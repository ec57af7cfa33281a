import { z } from 'zod';
import { Activity } from './activity';
import { TextAnchor } from './anchor';
import { CardSource, CardText, Recall } from './card';
import { FeedMode } from './feed';
import { HighlightKind, MarkedPassage } from './highlight';
import { Day, Fraction, Id, Instant, LONGEST_ADDRESS, Stamp } from './ids';
import { HowMuch, PushedText } from './how-much';
import { MOST_TIDYINGS, Note, Stage, Tally, Tidying } from './item';
import { TaskState, WrittenNote } from './note';
import { SavedSearch, Scope } from './saved-search';
import { Spans } from './spans';
import { TagName, tagKey } from './tag';

const base = { id: Id, itemId: Id, stamp: Stamp };

/** A new item. Repeating it with the same itemId changes nothing. */
const SaveMutation = z.object({
  ...base,
  type: z.literal('save'),
  address: z.string().trim().min(1).max(LONGEST_ADDRESS),
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
  address: z.string().trim().min(1).max(LONGEST_ADDRESS),
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

/** A note is written, or changed; only the fields named change. */
const WriteMutation = z.object({
  id: Id,
  stamp: Stamp,
  type: z.literal('write'),
  noteId: Id,
  madeAt: Instant,
  noteItemId: WrittenNote.shape.itemId,
  on: WrittenNote.shape.on,
  set: z.object({ text: Note, task: TaskState, dueOn: Day.nullable(), removed: z.boolean() }).partial(),
});

/** A card is made, or changed; only the fields named change. */
const CardMutation = z.object({
  id: Id,
  stamp: Stamp,
  type: z.literal('card'),
  cardId: Id,
  madeAt: Instant,
  source: CardSource.nullable(),
  set: z.object({ front: CardText, back: CardText, paused: z.boolean(), removed: z.boolean() }).partial(),
});

/** A card was asked and answered, or an answer is taken back. */
const RecallMutation = z.object({
  id: Id,
  stamp: Stamp,
  type: z.literal('recall'),
  cardId: Id,
  recall: Recall,
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
  WriteMutation,
  CardMutation,
  RecallMutation,
]);
export type Mutation = z.infer<typeof Mutation>;
/** The changes of what is followed. */
export type FeedMutation = Extract<Mutation, { feedId: string }>;
/** The changes of what is marked. */
export type HighlightMutation = Extract<Mutation, { highlightId: string }>;
export type SearchMutation = Extract<Mutation, { searchId: string }>;
export type NoteMutation = Extract<Mutation, { noteId: string }>;
export type CardMutation = Extract<Mutation, { cardId: string }>;
/** The changes that are changes of an item. */
export type ItemMutation = Exclude<
  Mutation,
  { type: 'activity' } | FeedMutation | HighlightMutation | SearchMutation | NoteMutation | CardMutation
>;
export type FeedChanges = z.infer<typeof ChangeFeedMutation>['set'];
export type HighlightChanges = z.infer<typeof ChangeMarkMutation>['set'];
export type NoteChanges = z.infer<typeof WriteMutation>['set'];
export type CardChanges = z.infer<typeof CardMutation>['set'];
export type ChoiceChanges = z.infer<typeof ChooseMutation>['set'];

/** The id of what a change is about: an item, a feed, a search, a note or a card. */
export function subjectOf(mutation: Mutation): string {
  if ('feedId' in mutation) return mutation.feedId;
  if ('searchId' in mutation) return mutation.searchId;
  if ('noteId' in mutation) return mutation.noteId;
  return 'cardId' in mutation ? mutation.cardId : mutation.itemId;
}
