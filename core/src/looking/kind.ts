import type { KindReason, PictureKind } from '../model';
import type { PictureFeatures } from './features';

/** A question put to a picture: whether more than so much of something is in it. */
type Question = readonly [of: KindReason['of'] | 'words', bound: number];
/** A tree of questions; what is asked for is yes, then no. */
type Tree = PictureKind | readonly [question: Question, yes: Tree, no: Tree];

/**
 * How the kind of a picture is told: few questions, each about something that can be seen and said. Grown over pictures that
 * bench/pictures.mjs draws and gathers, with a bound on its depth, and judged on others.
 */
export const KIND_TREE: Tree = [
  ['text', 0.07],
  [
    ['soft', 0.5],
    'page-of-text',
    [
      ['long', 0.46],
      'screenshot',
      [['text', 0.12], 'page-of-text', [['straight', 0.12], 'screenshot', 'page-of-text']],
    ],
  ],
  [
    ['paper', 0.3],
    [
      ['words', 1],
      [
        ['middle', 0.1],
        [['words', 10], 'screenshot', [['long', 0.36], 'screenshot', [['soft', 0.12], 'drawing', 'diagram']]],
        [
          ['soft', 0.14],
          'drawing',
          [['long', 0.6], [['words', 14], [['soft', 0.03], 'screenshot', 'diagram'], 'diagram'], 'diagram'],
        ],
      ],
      [
        ['straight', 0.28],
        [
          ['middle', 0.12],
          [['long', 0.48], 'screenshot', 'drawing'],
          [['thin', 0.3], [['strong', 0.02], 'drawing', [['straight', 0.38], 'diagram', 'line-drawing']], 'drawing'],
        ],
        [
          ['grey', 0.99],
          [
            ['paper', 0.58],
            [['thin', 0.12], 'line-drawing', 'drawing'],
            [['soft', 0.3], 'photograph', 'drawing'],
          ],
          [['soft', 0.42], 'photograph', 'drawing'],
        ],
      ],
    ],
    [['soft', 0.22], 'photograph', [['words', 3], 'screenshot', 'drawing']],
  ],
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
