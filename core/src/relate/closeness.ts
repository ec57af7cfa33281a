import type { RelatedIndex } from './related-index';

/** Below this two texts share a few words, above it a subject. Chosen by looking at the demo's library. */
const PLAINLY_NEAR = 0.31;

/** How near an item is to others, taken together. */
export interface Closeness {
  id: string;
  /** To the nearest of them, 0 to 1. */
  nearness: number;
  /** To how many of them it is plainly near. */
  nearTo: number;
}

/** How near items are to what was lately finished, say. Those that the index does not have are left out. */
export function closenessOf(
  index: RelatedIndex,
  candidates: readonly string[],
  others: readonly string[],
): Closeness[] {
  return candidates
    .filter((id) => index.has(id))
    .map((id) => {
      const near = index.nearnessTo(
        id,
        others.filter((other) => other !== id),
      );
      return {
        id,
        nearness: near[0]?.nearness ?? 0,
        nearTo: near.filter(({ nearness }) => nearness >= PLAINLY_NEAR).length,
      };
    });
}
