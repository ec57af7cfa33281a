import { z } from 'zod';
import { Highlight, HighlightKind, Id, Instant, MarkedPassage, NOT_WORKED_OVER, WorkedOver } from '../model';
import { CHANGE, decisions, type Kind } from './kind';
import { mergeRegisters, untouched, withChanges } from './registers';

/** A passage is marked. Repeating it with the same highlightId changes nothing. */
const MarkMutation = z.object({
  ...CHANGE,
  itemId: Id,
  type: z.literal('mark'),
  highlightId: Id,
  madeAt: Instant,
  kind: HighlightKind,
  passage: MarkedPassage,
});

/** The reader decided something about a highlight; only the fields named change. */
const ChangeMarkMutation = z.object({
  ...CHANGE,
  itemId: Id,
  type: z.literal('change-mark'),
  highlightId: Id,
  set: z
    .object({ kind: HighlightKind, passage: MarkedPassage, removed: z.boolean(), workedOver: WorkedOver })
    .partial(),
});

const HighlightMutation = z.discriminatedUnion('type', [MarkMutation, ChangeMarkMutation]);
export type HighlightMutation = z.infer<typeof HighlightMutation>;
export type HighlightChanges = z.infer<typeof ChangeMarkMutation>['set'];

/**
 * What a highlight is after a mutation: the same on a device and on the server. Pure, and harmless to repeat.
 *
 * @returns undefined when a change names a highlight that is not known
 */
function applyHighlightMutation(highlight: Highlight | undefined, mutation: HighlightMutation): Highlight | undefined {
  if (mutation.type === 'mark') {
    const made: Highlight = {
      id: mutation.highlightId,
      itemId: mutation.itemId,
      madeAt: mutation.madeAt,
      choices: {
        kind: { value: mutation.kind, at: mutation.stamp },
        passage: { value: mutation.passage, at: mutation.stamp },
        removed: untouched(false),
        workedOver: untouched(NOT_WORKED_OVER),
      },
    };
    return highlight ? mergeHighlights(highlight, made) : made;
  }
  return (
    highlight &&
    mergeHighlights(highlight, {
      ...highlight,
      choices: withChanges(highlight.choices, mutation.set, mutation.stamp),
    })
  );
}

/** Joins two states of one highlight: each choice by its latest stamp. */
function mergeHighlights(a: Highlight, b: Highlight): Highlight {
  return {
    ...a,
    ...b,
    itemId: a.itemId < b.itemId ? a.itemId : b.itemId,
    madeAt: Math.min(a.madeAt, b.madeAt),
    choices: mergeRegisters(a.choices, b.choices),
  };
}

/** A passage that the reader marked. */
export const highlightKind: Kind<Highlight, HighlightMutation> = {
  name: 'highlight',
  plural: 'highlights',
  version: 2,
  schema: Highlight,
  mutation: HighlightMutation,
  types: ['mark', 'change-mark'],
  needsItem: true,
  idOf: ({ highlightId }) => highlightId,
  itemIdOf: ({ itemId }) => itemId,
  movedTo: (highlight, itemId) => ({ ...highlight, itemId }),
  apply: applyHighlightMutation,
  merge: mergeHighlights,
  restate({ id: highlightId, itemId, madeAt, choices }, base) {
    const [kind, passage] = [choices.kind.value, choices.passage.value];
    return [
      { ...base(choices.passage.at), type: 'mark', itemId, highlightId, madeAt, kind, passage },
      ...decisions(choices, (stamp, set): HighlightMutation => ({
        ...base(stamp),
        type: 'change-mark',
        itemId,
        highlightId,
        set,
      })),
    ];
  },
};
