import type { PictureKind } from '../model';
import type { PictureFeatures } from './features';
import { MADE } from './kind-forest-made';

/**
 * A forest of questions (Breiman 2001, “Random forests”): each tree tells how often pictures that answer as this one does were of each
 * kind; the mean of all of them decides.
 */
interface KindForest {
  /** When and from what it was made, for whoever wonders. */
  made: string;
  features: readonly (keyof PictureFeatures)[];
  kinds: readonly PictureKind[];
  trees: readonly KindTree[];
}

/**
 * A tree by its nodes in depth-first order: the feature that is asked (-1 at a leaf), the value up to which the way goes left, the
 * place of the right child (the left one follows its parent), and the share of each kind at the node, in hundredths.
 */
interface KindTree {
  feature: readonly number[];
  upTo: readonly number[];
  right: readonly number[];
  share: readonly (readonly number[])[];
}

const FOREST = JSON.parse(MADE) as KindForest;

/**
 * The kind that most of the forest is for, and what spoke for it: how much each question on the way through the trees has raised
 * its share, added up by feature (Saabas 2014, “Interpreting random forests”).
 *
 * @returns `by` names features, the strongest first
 */
export function byForest(features: PictureFeatures): { kind: PictureKind; by: string[] } {
  const { kinds, trees } = FOREST;
  const asked = FOREST.features.map((name) => features[name]);
  const sums = kinds.map(() => 0);
  for (const tree of trees)
    for (const [n, share] of (tree.share[waysThrough(tree, asked).at(-1) ?? 0] ?? []).entries())
      sums[n] = (sums[n] ?? 0) + share;
  const most = sums.indexOf(Math.max(...sums));
  const weights = FOREST.features.map((name) => ({ name, weight: 0 }));
  for (const tree of trees) {
    const way = waysThrough(tree, asked);
    for (const [step, at] of way.slice(1).entries()) {
      const before = way[step] ?? 0;
      const of = weights[tree.feature[before] ?? 0];
      if (of) of.weight += (tree.share[at]?.[most] ?? 0) - (tree.share[before]?.[most] ?? 0);
    }
  }
  const by = weights.filter(({ weight }) => weight > 0).sort((a, b) => b.weight - a.weight);
  return { kind: kinds[most] ?? 'drawing', by: by.map(({ name }) => name) };
}

/** The nodes that a picture comes by, from the root to a leaf. */
function waysThrough({ feature, upTo, right }: KindTree, asked: readonly number[]): number[] {
  const way = [0];
  for (let at = 0, of = feature[0] ?? -1; of >= 0; of = feature[at] ?? -1) {
    at = (asked[of] ?? 0) <= (upTo[at] ?? 0) ? at + 1 : (right[at] ?? 0);
    way.push(at);
  }
  return way;
}
