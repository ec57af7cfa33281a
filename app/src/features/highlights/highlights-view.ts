import type { HighlightedItem } from '@dorvel/core/formats';
import {
  type Highlight,
  type HighlightKind,
  isTagWithin,
  type Item,
  type Note,
  tagKey,
  tagsOf,
} from '@dorvel/core/model';
import { notesUnder, noteText } from '@dorvel/core/notes';
import { hasWords } from '@dorvel/core/text';
import { sourceOf, titleOf } from '@dorvel/core/wording';

/** Which item stands on top: the one marked last, the one marked first, or the first by its title. */
export type HighlightsOrder = 'latest' | 'earliest' | 'title';

/** What of all highlights is to be seen. */
export interface HighlightsWanted {
  /** Of one item, or of all. */
  itemId: string | null;
  kind: HighlightKind | 'all';
  /** Words that the passage or the note has; empty for any. */
  words: string;
  /** A tag that the item has; null for any. */
  tag: string | null;
  /** Where the item is from, as sourceOf says it; null for any. */
  source: string | null;
  /** Marked at this instant or later, in milliseconds; 0 for any. */
  since: number;
  order: HighlightsOrder;
}

/** All there is. */
export const ALL_HIGHLIGHTS: HighlightsWanted = {
  itemId: null,
  kind: 'all',
  words: '',
  tag: null,
  source: null,
  since: 0,
  order: 'latest',
};

/**
 * Highlights by item, each item's in the order of its text, and the notes on either. A kind asks for highlights alone.
 */
export function highlightsByItem(
  highlights: readonly Highlight[],
  notes: readonly Note[],
  items: readonly Item[],
  { itemId, kind, words, tag, source, since, order }: HighlightsWanted,
): HighlightedItem[] {
  const ownText = new Map(notes.map((note) => [note.id, noteText(note)]));
  const byItem = new Map<string, Highlight[]>();
  for (const highlight of highlights) {
    const { choices } = highlight;
    if (itemId !== null && highlight.itemId !== itemId) continue;
    if (highlight.madeAt < since) continue;
    if (kind !== 'all' && choices.kind.value !== kind) continue;
    const written = ownText.get(highlight.id) ?? '';
    if (!hasWords(`${choices.passage.value.exact}\n${written}`, words)) continue;
    byItem.set(highlight.itemId, [...(byItem.get(highlight.itemId) ?? []), highlight]);
  }
  const shown = new Set([...byItem.values()].flat().map(({ id }) => id));
  const notesOf = new Map<string, Note[]>();
  for (const note of notes) {
    if (note.itemId === null || (itemId !== null && note.itemId !== itemId)) continue;
    // A highlight that is shown is shown with its own note; the others for what they say themselves.
    const isShown = shown.has(note.id);
    if (!isShown && (kind !== 'all' || note.madeAt < since || !hasWords(noteText(note), words))) continue;
    notesOf.set(note.itemId, [...(notesOf.get(note.itemId) ?? []), note]);
  }
  const latest = (each: HighlightedItem) =>
    Math.max(...[...each.highlights, ...each.notes].map(({ madeAt }) => madeAt));
  return items
    .flatMap((item): HighlightedItem[] => {
      const own = byItem.get(item.id);
      const written = notesOf.get(item.id);
      if (!own && !written) return [];
      if ((source !== null && sourceOf(item) !== source) || !hasTag(item, tag)) return [];
      return [{ item, highlights: own?.sort(inTextOrder) ?? [], notes: written ?? [] }];
    })
    .sort((a, b) => {
      if (order === 'title') return titleOf(a.item).localeCompare(titleOf(b.item));
      return order === 'latest' ? latest(b) - latest(a) : latest(a) - latest(b);
    });
}

/** A tag stands for those under it too: `sea` for `sea/tides`. */
function hasTag(item: Item, tag: string | null): boolean {
  return tag === null || tagsOf(item).some((each) => isTagWithin(tagKey(each), tagKey(tag)));
}

/** Tags and sources of items in which something is marked, each once, by name. */
export function facetsOf(marked: readonly HighlightedItem[]): { tags: string[]; sources: string[] } {
  const byName = (names: readonly string[]) => [...new Set(names)].sort((a, b) => a.localeCompare(b));
  return {
    tags: byName(marked.flatMap(({ item }) => tagsOf(item))),
    sources: byName(marked.map(({ item }) => sourceOf(item))),
  };
}

/** Highlights in an order of their own, as what is taken along wants them: neighbours of one item together. */
export function inRuns(
  highlights: readonly Highlight[],
  notes: readonly Note[],
  items: readonly Item[],
): HighlightedItem[] {
  const runs: { item: Item; highlights: Highlight[] }[] = [];
  for (const highlight of highlights) {
    const last = runs.at(-1);
    const item = items.find(({ id }) => id === highlight.itemId);
    if (last && last.item.id === item?.id) last.highlights.push(highlight);
    else if (item) runs.push({ item, highlights: [highlight] });
  }
  // Only what was written on them: what stands on the item was not gathered.
  return runs.map((run) => {
    const all = { ...run, notes: notes.filter(({ itemId }) => itemId === run.item.id) };
    return { ...run, notes: run.highlights.flatMap(({ id }) => notesUnder(all, id)) };
  });
}

function inTextOrder(a: Highlight, b: Highlight): number {
  const place = ({ choices }: Highlight) => choices.passage.value.start ?? Infinity;
  return place(a) - place(b) || a.madeAt - b.madeAt;
}
