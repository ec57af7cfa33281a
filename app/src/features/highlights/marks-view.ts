import type { MarkedItem } from '@dorvel/core/formats';
import type { Highlight, HighlightKind, Item } from '@dorvel/core/model';

/** What of all highlights is to be seen. */
export interface MarksWanted {
  /** Of one item, or of all. */
  itemId: string | null;
  kind: HighlightKind | 'all';
  /** Words that the passage or the note has; empty for any. */
  words: string;
}

/** Highlights by item, the item marked last on top, each item's in the order of its text. */
export function marksByItem(
  highlights: readonly Highlight[],
  items: readonly Item[],
  { itemId, kind, words }: MarksWanted,
): MarkedItem[] {
  const sought = fold(words);
  const byItem = new Map<string, Highlight[]>();
  for (const highlight of highlights) {
    const { choices } = highlight;
    if (itemId !== null && highlight.itemId !== itemId) continue;
    if (kind !== 'all' && choices.kind.value !== kind) continue;
    if (!fold(`${choices.passage.value.exact}\n${choices.note.value}`).includes(sought)) continue;
    byItem.set(highlight.itemId, [...(byItem.get(highlight.itemId) ?? []), highlight]);
  }
  const latest = (each: MarkedItem) => Math.max(...each.highlights.map(({ madeAt }) => madeAt));
  return items
    .flatMap((item): MarkedItem[] => {
      const own = byItem.get(item.id);
      return own ? [{ item, highlights: own.sort(inTextOrder) }] : [];
    })
    .sort((a, b) => latest(b) - latest(a));
}

function inTextOrder(a: Highlight, b: Highlight): number {
  const place = ({ choices }: Highlight) => choices.passage.value.start ?? Infinity;
  return place(a) - place(b) || a.madeAt - b.madeAt;
}

function fold(words: string): string {
  return words.trim().normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}
