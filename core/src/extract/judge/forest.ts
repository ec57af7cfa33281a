import { MADE } from './forest-made';

/**
 * Boosted trees (Friedman 2001, “Greedy function approximation: a gradient boosting machine”): the sum of what each of
 * many small trees says is the log of the odds that a line is text.
 */
export interface Forest {
  /** When and from what it was made, for whoever wonders. */
  made: string;
  features: readonly string[];
  /** Log of the odds before anything is known of a line. */
  start: number;
  /** Above these odds (as a share, 0 to 1) a line is text. */
  threshold: number;
  /** How far beyond the threshold a line must be for the rules to be overruled. */
  lean: number;
  trees: readonly Tree[];
}

/**
 * A tree by its nodes in depth-first order: the feature that is asked (-1 at a leaf), the value up to which the way goes
 * left, the place of the right child (the left one follows its parent), and what is known at the node.
 */
interface Tree {
  feature: readonly number[];
  upTo: readonly number[];
  right: readonly number[];
  value: readonly number[];
}

/** The forest that Dorvel judges by; made by bench/judge.mjs. */
export const FOREST = JSON.parse(MADE) as Forest;

/** The share of odds, 0 to 1, that a line with these features is text. */
export function likelihood(forest: Forest, features: ArrayLike<number>): number {
  let sum = forest.start;
  for (const { feature, upTo, right, value } of forest.trees) {
    let at = 0;
    for (let asked = feature[0] ?? -1; asked >= 0; asked = feature[at] ?? -1)
      at = (features[asked] ?? 0) <= (upTo[at] ?? 0) ? at + 1 : (right[at] ?? 0);
    sum += value[at] ?? 0;
  }
  return 1 / (1 + Math.exp(-sum));
}

/**
 * What spoke for a line and against it: what each question on the way through the trees has changed, added up by feature
 * (Saabas 2014, “Interpreting random forests”).
 *
 * @returns by feature, the strongest first; above 0 for the text, below against it
 */
export function reasons(forest: Forest, features: ArrayLike<number>): { feature: string; weight: number }[] {
  const sums = new Float64Array(forest.features.length);
  for (const { feature, upTo, right, value } of forest.trees) {
    let at = 0;
    for (let asked = feature[0] ?? -1; asked >= 0; asked = feature[at] ?? -1) {
      const next = (features[asked] ?? 0) <= (upTo[at] ?? 0) ? at + 1 : (right[at] ?? 0);
      sums[asked] = (sums[asked] ?? 0) + (value[next] ?? 0) - (value[at] ?? 0);
      at = next;
    }
  }
  return [...sums]
    .map((weight, index) => ({ feature: forest.features[index] ?? '', weight }))
    .filter(({ weight }) => weight !== 0)
    .sort((one, other) => Math.abs(other.weight) - Math.abs(one.weight));
}
