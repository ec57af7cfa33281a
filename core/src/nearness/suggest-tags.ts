import type { Related } from './related';

/** A tag that the reader uses, and that an item may want. */
export interface TagSuggestion {
  tag: string;
  /** The text itself speaks of it. */
  isNamed: boolean;
  /** The items near to this one that have it, nearest first. */
  because: readonly string[];
}

/** Together the items that have a tag must be so near: one plainly near, or several a little. Chosen by looking. */
const NEAR_ENOUGH = 0.25;
/** What the text's own word for a tag counts, beside the nearness of those that have it. */
const NAMED = 0.3;

interface Asked {
  /** The items near to it. */
  related: readonly Pick<Related, 'id' | 'nearness'>[];
  /** Tags of an item, as the reader writes them. */
  tagsOf(id: string): readonly string[];
  /** Tags that the text speaks of; see namedTags. */
  named: readonly string[];
  /** Keys of the tags it has already. */
  own: ReadonlySet<string>;
  most: number;
}

/**
 * Tags for an item from the reader's own use: a vote of the items near to it, each with its nearness (the weighted
 * k nearest neighbours of text classification; Manning, Raghavan, Schütze, Introduction to Information Retrieval, 14.3), and
 * of the text, where it makes much of the tag's own word.
 */
export function suggestTags({ related, tagsOf, named, own, most }: Asked): TagSuggestion[] {
  const votes = new Map<string, { tag: string; isNamed: boolean; weight: number; because: string[] }>();
  const vote = (tag: string) => {
    const key = tag.toLowerCase();
    const known = votes.get(key) ?? { tag, isNamed: false, weight: 0, because: [] };
    if (!own.has(key)) votes.set(key, known);
    return known;
  };
  for (const { id, nearness } of related)
    for (const tag of tagsOf(id)) {
      const known = vote(tag);
      known.weight += nearness;
      known.because.push(id);
    }
  for (const tag of named) {
    const known = vote(tag);
    known.isNamed = true;
    known.weight += NAMED;
  }
  return [...votes.values()]
    .filter(({ weight }) => weight >= NEAR_ENOUGH)
    .sort((a, b) => b.weight - a.weight || (a.tag < b.tag ? -1 : 1))
    .slice(0, most)
    .map(({ tag, isNamed, because }) => ({ tag, isNamed, because }));
}
