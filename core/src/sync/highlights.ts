import { NEVER, type Highlight, type HighlightMutation } from '../model';
import { withChanges } from './apply';
import { mergeRegisters } from './merge';

/**
 * What a highlight is after a mutation: the same on a device and on the server. Pure, and harmless to repeat.
 *
 * @returns undefined when a change names a highlight that is not known
 */
export function applyHighlightMutation(
  highlight: Highlight | undefined,
  mutation: HighlightMutation,
): Highlight | undefined {
  if (mutation.type === 'mark') {
    const made: Highlight = {
      id: mutation.highlightId,
      itemId: mutation.itemId,
      madeAt: mutation.madeAt,
      choices: {
        kind: { value: mutation.kind, at: mutation.stamp },
        passage: { value: mutation.passage, at: mutation.stamp },
        note: { value: '', at: NEVER },
        removed: { value: false, at: NEVER },
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
export function mergeHighlights(a: Highlight, b: Highlight): Highlight {
  return {
    id: a.id,
    itemId: a.itemId < b.itemId ? a.itemId : b.itemId,
    madeAt: Math.min(a.madeAt, b.madeAt),
    choices: mergeRegisters(a.choices, b.choices),
  };
}
