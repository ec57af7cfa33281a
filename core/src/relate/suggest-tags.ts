import type { Related } from './related-index';

/** A tag that the reader gave to items like this one. */
export interface TagSuggestion {
  tag: string;
  /** The items near to this one that have it, nearest first. */
  because: readonly string[];
}

/** Together the items that have a tag must be so near: one plainly near, or several a little. Chosen by looking. */
const NEAR_ENOUGH = 0.2;

/**
 * Tags for an item from the reader's own use: a vote of the items near to it, each with its nearness (the weighted
 * k nearest neighbours of text classification; Manning, Raghavan, Schütze, Introduction to Information Retrieval, 14.3).
 *
 * @param related the items near to it
 * @param tagsOf tags of an item, as the reader writes them
 * @param own keys of the tags it has already
 * @param most how many are wanted
 */
export function suggestTags(
  related: readonly Related[],
  tagsOf: (id: string) => readonly string[],
  own: ReadonlySet<string>,
  most: number,
): TagSuggestion[] {
  const votes = new Map<string, { tag: string; weight: number; because: string[] }>();
  for (const { id, nearness } of related)
    for (const tag of tagsOf(id)) {
      const key = tag.toLowerCase();
      if (own.has(key)) continue;
      const known = votes.get(key) ?? { tag, weight: 0, because: [] };
      known.weight += nearness;
      known.because.push(id);
      votes.set(key, known);
    }
  return [...votes.values()]
    .filter(({ weight }) => weight >= NEAR_ENOUGH)
    .sort((a, b) => b.weight - a.weight || (a.tag < b.tag ? -1 : 1))
    .slice(0, most)
    .map(({ tag, because }) => ({ tag, because }));
}
