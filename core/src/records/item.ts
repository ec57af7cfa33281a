import { z } from 'zod';
import { canonicalAddress } from '../address';
import {
  Day,
  Fraction,
  HowMuch,
  Id,
  Instant,
  Item,
  joinSpans,
  KnownWish,
  MAX_ADDRESS_LENGTH,
  MAX_TIDYINGS,
  MAX_TYPED,
  NEVER,
  NO_TALLY,
  PictureKind,
  Place,
  type Progress,
  PushedText,
  Spans,
  Stage,
  tagKey,
  TagName,
  type Tags,
  Tally,
  TextAnchor,
  Tidying,
  WordPutRight,
  wordRegisters,
  WordsInOne,
  type WordsPutRight,
} from '../model';
import { CHANGE, decisions, type Kind } from './kind';
import { latest, mergeRegisters, untouched, withChanges } from './registers';

/** A new item. Repeating it with the same itemId changes nothing. */
const SaveMutation = z.object({
  ...CHANGE,
  itemId: Id,
  type: z.literal('save'),
  address: z.string().trim().min(1).max(MAX_ADDRESS_LENGTH),
  savedAt: Instant,
  /** Words and pictures when nothing is said. */
  howMuch: HowMuch.optional(),
});

/** The reader decided something, or something was put before them; only the fields named change. */
const ChooseMutation = z.object({
  ...CHANGE,
  itemId: Id,
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
      tidied: z.array(Tidying).max(MAX_TIDYINGS),
      known: KnownWish,
      best: Instant.nullable(),
      listedAs: z.string().trim().min(1).max(500).nullable(),
      kindSaid: PictureKind.nullable(),
      /** As a device sends it that has not been renewed since. */
      putRight: WordsInOne,
      typed: z.string().max(MAX_TYPED).nullable(),
      place: Place.nullable(),
    })
    .partial(),
});

/** Tags were put on or, as null, taken off, by key. */
const TagMutation = z.object({
  ...CHANGE,
  itemId: Id,
  type: z.literal('tag'),
  set: z
    .record(z.string().max(200), TagName.nullable())
    .refine(
      (set) => Object.entries(set).every(([key, name]) => name === null || tagKey(name) === key),
      'tag-under-other-key',
    ),
});

/** Words in its pictures were put right, by place (see placeOfWord); as they were recognised to leave them so. */
const PutRightMutation = z.object({
  ...CHANGE,
  itemId: Id,
  type: z.literal('put-right'),
  set: z.record(z.string().max(160), WordPutRight),
});

/** The reader moved on in the text. */
const ProgressMutation = z.object({
  ...CHANGE,
  itemId: Id,
  type: z.literal('progress'),
  furthest: Fraction,
  position: TextAnchor,
  /** What went by ear since the last such change. */
  heard: Spans.default([]),
});

/** The reader asks for the page to be fetched again. */
const RefetchMutation = z.object({ ...CHANGE, itemId: Id, type: z.literal('refetch') });

/** The reader gives the item's text by hand, where the page itself did not come through or only a part is wanted. */
const ProvideMutation = z.object({ ...CHANGE, itemId: Id, type: z.literal('provide'), given: PushedText });

const ItemMutation = z.discriminatedUnion('type', [
  SaveMutation,
  ChooseMutation,
  TagMutation,
  PutRightMutation,
  ProgressMutation,
  RefetchMutation,
  ProvideMutation,
]);
export type ItemMutation = z.infer<typeof ItemMutation>;
export type ItemChoices = Omit<z.infer<typeof ChooseMutation>['set'], 'putRight'>;
type Save = z.infer<typeof SaveMutation>;

/** A new item as a device makes it, before the server has seen it. */
export function newItem(save: Save): Item {
  return {
    id: save.itemId,
    address: save.address,
    savedAt: save.savedAt,
    choices: {
      stage: { value: 'inbox', at: save.stamp },
      title: untouched(null),
      queueRank: untouched(0),
      raisedAt: { value: save.savedAt, at: save.stamp },
      finishedAt: untouched(null),
      comeBackOn: untouched(null),
      shown: untouched(NO_TALLY),
      passedOver: untouched(NO_TALLY),
      howMuch: { value: save.howMuch ?? 'words-and-pictures', at: save.stamp },
      tidied: untouched([]),
      known: untouched('told'),
      best: untouched(null),
      listedAs: untouched(null),
      kindSaid: untouched(null),
      typed: untouched(null),
      place: untouched(null),
    },
    tags: {},
    putRight: {},
    progress: { furthest: 0, position: null, heard: [] },
    capture: {
      revision: 0,
      state: 'waiting',
      outcome: { code: 'waiting' },
      attempts: 0,
      nextTryAt: null,
      addressKey: canonicalAddress(save.address),
      duplicateOf: null,
      page: null,
      copies: [],
      goneSince: null,
    },
  };
}

/**
 * What an item is after a mutation: the same on a device and on the server. Pure, and harmless to repeat.
 *
 * @param item the item now, or undefined when it is not known here
 * @returns the item after; undefined when a change names an item that is not known
 * @throws TypeError when a save carries no http address (the caller has parsed it with readAddress)
 */
function applyItemMutation(item: Item | undefined, mutation: ItemMutation): Item | undefined {
  if (mutation.type === 'save') {
    const made = newItem(mutation);
    return item ? mergeItems(item, made) : made;
  }
  if (!item) return undefined;
  switch (mutation.type) {
    case 'choose': {
      const { putRight = [], ...set } = mutation.set;
      const choices = withChanges(item.choices, set, mutation.stamp);
      return mergeItems(item, { ...item, choices, putRight: wordRegisters(putRight, mutation.stamp) });
    }
    case 'tag':
      return mergeItems(item, { ...item, tags: withChanges<Tags>({}, mutation.set, mutation.stamp) });
    case 'put-right':
      return mergeItems(item, { ...item, putRight: withChanges<WordsPutRight>({}, mutation.set, mutation.stamp) });
    case 'progress':
      return mergeItems(item, {
        ...item,
        progress: {
          furthest: mutation.furthest,
          position: { value: mutation.position, at: mutation.stamp },
          heard: mutation.heard,
        },
      });
    case 'refetch':
      return waiting(item, 'waiting-again');
    case 'provide':
      return waiting(item, 'given-waits');
  }
}

function waiting(item: Item, code: 'waiting-again' | 'given-waits'): Item {
  return { ...item, capture: { ...item.capture, state: 'waiting', outcome: { code }, nextTryAt: null } };
}

/**
 * Joins two states of one item. Commutative, associative and idempotent, so that devices may send and
 * receive in any order and as often as they like, and end up alike:
 * each choice, each tag and each word put right by its latest stamp, furthest progress by the larger, position by its latest stamp, what was heard
 * on either, what the server knows by the higher revision.
 */
function mergeItems(a: Item, b: Item): Item {
  const isFirst = a.savedAt < b.savedAt || (a.savedAt === b.savedAt && a.address <= b.address);
  return {
    ...(isFirst ? { ...b, ...a } : { ...a, ...b }),
    choices: mergeRegisters(a.choices, b.choices),
    tags: mergeRegisters(a.tags, b.tags),
    putRight: mergeRegisters(a.putRight, b.putRight),
    progress: mergeProgress(a.progress, b.progress),
    capture: a.capture.revision >= b.capture.revision ? a.capture : b.capture,
  };
}

/** An item with the tags of another that it stands for from now on, where the two do not differ about one. */
export function withTagsOf(canonical: Item, other: Item): Item {
  return { ...canonical, tags: { ...other.tags, ...canonical.tags } };
}

function mergeProgress(a: Progress, b: Progress): Progress {
  return {
    furthest: Math.max(a.furthest, b.furthest),
    position: a.position && b.position ? latest(a.position, b.position) : (a.position ?? b.position),
    heard: joinSpans(a.heard, b.heard),
  };
}

/** The least that makes an item: what must never be lost. */
const Kernel = z.object({ id: z.uuid(), address: z.string().min(1) });

/** Anything saved. */
export const itemKind: Kind<Item, ItemMutation> = {
  name: 'item',
  plural: 'items',
  version: 3,
  schema: Item,
  mutation: ItemMutation,
  types: ['save', 'choose', 'tag', 'put-right', 'progress', 'refetch', 'provide'],
  others: ['capture'],
  idOf: ({ itemId }) => itemId,
  itemIdOf: ({ id }) => id,
  apply: applyItemMutation,
  merge: mergeItems,
  // Of the progress in an item, the later place, with how far it went before and all that was heard.
  combine: (earlier, later) =>
    earlier.type === 'progress' && later.type === 'progress'
      ? {
          ...later,
          furthest: Math.max(later.furthest, earlier.furthest),
          heard: joinSpans(later.heard, earlier.heard),
        }
      : null,
  restate(item, base) {
    // One that only points at another is nothing by itself.
    if (item.capture.duplicateOf !== null) return [];
    const itemId = item.id;
    const { position, furthest, heard } = item.progress;
    return [
      { ...base(), type: 'save', itemId, address: item.address, savedAt: item.savedAt },
      ...decisions(item.choices, (stamp, set): ItemMutation => ({
        ...base(stamp),
        type: 'choose',
        itemId,
        set,
      })),
      ...decisions(item.tags, (stamp, set): ItemMutation => ({ ...base(stamp), type: 'tag', itemId, set })),
      ...decisions(item.putRight, (stamp, set): ItemMutation => ({ ...base(stamp), type: 'put-right', itemId, set })),
      ...(position
        ? [
            {
              ...base(position.at),
              type: 'progress' as const,
              itemId,
              furthest,
              position: position.value,
              heard,
            },
          ]
        : []),
    ];
  },
  rescue(stored) {
    const kernel = Kernel.safeParse(stored).data;
    if (!kernel) return null;
    const address = URL.canParse(kernel.address) ? kernel.address : `https://unreadable.invalid/${kernel.id}`;
    const bare = newItem({
      id: kernel.id,
      itemId: kernel.id,
      stamp: NEVER,
      type: 'save',
      address,
      savedAt: 0,
    });
    return (
      Item.safeParse({
        ...bare,
        capture: { ...bare.capture, state: 'failed', outcome: { code: 'unreadable' } },
      }).data ?? null
    );
  },
};
