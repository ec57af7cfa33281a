import type { KindReason, PictureKind } from '../model';
import type { PictureFeatures } from './features';

/** A question put to a picture: whether more than so much of something is in it. */
type Question = readonly [of: KindReason['of'] | 'edges' | 'words', bound: number];
/** A tree of questions; what is asked for is yes, then no. */
type Tree = PictureKind | readonly [question: Question, yes: Tree, no: Tree];

/**
 * How the kind of a picture is told: few questions, each about something that can be seen and said. Grown over pictures that
 * bench/pictures.mjs draws and gathers, with a bound on its depth, and judged on others.
 */
export const KIND_TREE: Tree = [
  ['text', 0.14],
  [['soft', 0.75], 'photograph', [['strong', 0.25], 'screenshot', 'page-of-text']],
  [
    ['soft', 0.3],
    'photograph',
    [
      ['straight', 0.3],
      [['words', 3], [['colours', 14], 'screenshot', 'diagram'], 'diagram'],
      [['colours', 5], 'drawing', [['strong', 0.08], 'drawing', 'line-drawing']],
    ],
  ],
];

/** What is looked at only to ask a question is not a reason that is told. */
const TOLD: ReadonlySet<string> = new Set<KindReason['of']>([
  'flat',
  'soft',
  'colours',
  'paper',
  'straight',
  'text',
  'strong',
  'grey',
]);
/** So much of a picture must be without colour for it to be black and white. */
const ALL_GREY = 0.985;

/** Tells the kind of a picture, and by what: the questions that were answered on the way, the last first. */
export function kindOf(features: PictureFeatures): { kind: PictureKind; why: KindReason[]; isGrey: boolean } {
  const why: KindReason[] = [];
  let at: Tree = KIND_TREE;
  while (typeof at !== 'string') {
    const [[of, bound], yes, no]: Exclude<Tree, string> = at;
    const amount = features[of];
    if (TOLD.has(of) && !why.some((each) => each.of === of))
      why.unshift({ of: of as KindReason['of'], amount: Math.round(1000 * amount) / 1000 });
    at = amount > bound ? yes : no;
  }
  return { kind: at, why: why.slice(0, 4), isGrey: features.grey >= ALL_GREY };
}
