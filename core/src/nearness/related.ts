/** An item near to another, with what joins them. */
export interface Related {
  id: string;
  /** 0 to 1: the cosine of the two profiles, raised where one speaks of what the other's title names. */
  nearness: number;
  /** The terms that both speak of, as they stand in the texts, the weightiest first. */
  shared: string[];
  /** How much of what both say is the same, word for word, 0 to 1; see resemblance. */
  resemblance: number;
}

/** What is farther than this shares words, not a subject: better nothing than something irrelevant. */
export const PLAINLY_RELATED = 0.21;

/**
 * From here on two texts tell the same: what shares seven tenths of its sentences lies well above it, two texts of one
 * subject hardly above nothing.
 */
export const PLAINLY_THE_SAME = 0.25;
