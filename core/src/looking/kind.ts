import type { KindReason, PictureKind } from '../model';
import type { PictureFeatures } from './features';
import { byForest } from './kind-forest';

/** A question put to a picture: whether more than so much of something is in it. */
type Question = readonly [of: KindReason['of'], bound: number];
/** A tree of questions; what is asked for is yes, then no. */
type Tree = PictureKind | readonly [question: Question, yes: Tree, no: Tree];

/** Where words cover more than this, a picture is a page or a screen: few questions tell which. */
export const TEXT_BOUND = 0.07;
const OF_WORDS: Tree = [
  ['soft', 0.5],
  'page-of-text',
  [['long', 0.46], 'screenshot', [['text', 0.12], 'page-of-text', [['straight', 0.12], 'screenshot', 'page-of-text']]],
];

/** What is looked at only to ask a question is not a reason that is told. */
const TOLD: ReadonlySet<string> = new Set<KindReason['of']>([
  'soft',
  'paper',
  'straight',
  'long',
  'thin',
  'middle',
  'text',
  'strong',
  'grey',
]);
/** So much of a picture must be without colour for it to be black and white. */
const ALL_GREY = 0.985;

/**
 * Tells the kind of a picture, and by what. One that is full of words by a few questions, all of which are told; any other by a
 * forest of them (core/looking/kind-forest), and what counted most in it.
 */
export function kindOf(features: PictureFeatures): { kind: PictureKind; why: KindReason[]; isGrey: boolean } {
  const { kind, by } = features.text > TEXT_BOUND ? byQuestions(features) : byForest(features);
  const why = by
    .filter((of): of is KindReason['of'] => TOLD.has(of))
    .map((of) => ({ of, amount: Math.round(1000 * features[of]) / 1000 }));
  return { kind, why: why.slice(0, MOST_REASONS), isGrey: features.grey >= ALL_GREY };
}

const MOST_REASONS = 4;

/** @returns what was asked on the way, the last first */
function byQuestions(features: PictureFeatures): { kind: PictureKind; by: string[] } {
  const by = new Set<string>();
  let at: Tree = OF_WORDS;
  while (typeof at !== 'string') {
    const [[of, bound], yes, no]: Exclude<Tree, string> = at;
    by.add(of);
    at = features[of] > bound ? yes : no;
  }
  return { kind: at, by: ['text', ...by].reverse() };
}
