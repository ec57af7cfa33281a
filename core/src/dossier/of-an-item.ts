import type { EntryPart, Highlight, Note } from '../model';
import { isLive } from '../notes';

/**
 * What a reader made of one item, to be handed on by itself: the item, what they wrote on it, and each passage that they marked
 * in the order of the text, what they wrote on it after it.
 */
export function entriesOfItem(itemId: string, highlights: readonly Highlight[], notes: readonly Note[]): EntryPart[] {
  const live = notes.filter(isLive).sort((a, b) => a.madeAt - b.madeAt);
  const written = (isOn: (note: Note) => boolean) =>
    live.filter(isOn).map(({ id }): EntryPart => ({ kind: 'note', noteId: id }));
  const startOf = ({ choices }: Highlight) => choices.passage.value.start ?? Number.MAX_SAFE_INTEGER;
  return [
    { kind: 'item', itemId },
    ...written(({ on }) => on.kind === 'item'),
    ...highlights
      .filter(({ choices }) => !choices.removed.value)
      .sort((a, b) => startOf(a) - startOf(b) || a.madeAt - b.madeAt)
      .flatMap(({ id }): EntryPart[] => [
        { kind: 'passage', itemId, highlightId: id },
        ...written(({ on }) => on.kind === 'highlight' && on.id === id),
      ]),
  ];
}
