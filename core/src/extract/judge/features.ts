import {
  announcesComments,
  announcesOthers,
  isLineOfClutter,
  isPreambleLine,
  isTailLine,
  saysWhen,
} from '../choose/lines';
import type { PageElement } from '../page/page-tree';
import { type BlockFeatures, blockFeatures, type RulesWord, running } from './block-features';
import { count, NOTHING, ownFeatures } from './line-features';
import type { PageLines } from './page-lines';
import { coverage, headlineAt, likeness, wordSet } from './stated-features';

/** What a page states of itself in its data, to compare its lines with. */
export interface Stated {
  title: string | null;
  /** Texts that belong to the article: ingredients, steps, the article's body. */
  texts: readonly string[];
  /** Texts of others: reviews. */
  others: readonly string[];
}

/**
 * Groups of features, so that a bench can ask what each is worth.
 *
 * @public
 */
export const FEATURE_GROUPS = {
  words: ['length', 'linkShare', 'marks', 'endsSentence', 'capitals', 'digits', 'wordLength', 'prose', 'unspaced'],
  tag: [
    'isParagraph',
    'isEntry',
    'isCell',
    'isHeading',
    'isCode',
    'isTerm',
    'isBox',
    'inLink',
    'inFigure',
    'inQuote',
    'inForm',
    'inList',
    'inTable',
    'property',
  ],
  place: ['depth', 'at', 'atProse', 'sinceHeadline', 'beforeHeadline'],
  rules: [
    'rulesKeep',
    'inMain',
    'beforeMain',
    'afterMain',
    'cutAround',
    'cutBox',
    'hidden',
    'clutter',
    'preamble',
    'tail',
    'announcesOthers',
    'announcesComments',
    'when',
    'rulesNear',
  ],
  names: [
    'namedAround',
    'namedBeside',
    'namedComments',
    'namedNever',
    'namedText',
    'namedBody',
    'namedParts',
    'roleAround',
  ],
  neighbours: [
    'length-2',
    'length-1',
    'length+1',
    'length+2',
    'links-2',
    'links-1',
    'links+1',
    'links+2',
    'prose±2',
    'prose±6',
    'links±6',
    'sentence-1',
    'sentence+1',
    'heading-1',
    'heading+1',
  ],
  headings: ['sinceHeading', 'headingLevel', 'headingLinked', 'headingOthers', 'headingComments', 'underHeadline'],
  boxes: [
    'box1Links',
    'box1Prose',
    'box1Share',
    'box1Lines',
    'box2Links',
    'box2Prose',
    'box2Share',
    'box2Lines',
    'box3Links',
    'box3Prose',
    'box3Share',
    'box3Lines',
  ],
  repetition: ['alike', 'alikeLinks', 'alikeLength', 'alikeLed'],
  stated: ['ofTitle', 'ofStated', 'ofOthers', 'hasStated'],
} as const;

export const FEATURES: readonly string[] = Object.values(FEATURE_GROUPS).flat();

/** The features of every line of a page, in the order of FEATURES. */
export function featuresOf(page: PageLines, body: PageElement, rules: RulesWord, stated: Stated): Float32Array[] {
  const { lines, ranges } = page;
  const sums = running(lines);
  const chars = Math.max(1, sums.chars.at(-1) ?? 0);
  const prose = Math.max(1, sums.prose.at(-1) ?? 0);
  const main = ranges.get(rules.main) ?? { from: 0, to: lines.length };
  const blocks = new Map<PageElement, BlockFeatures>();
  const rows = new Map<PageElement, Map<string, number[]>>();
  const ofBlock = (element: PageElement): BlockFeatures => {
    let known = blocks.get(element);
    if (!known) {
      known = blockFeatures(element, { body, ranges, sums, rules, lines, rows });
      blocks.set(element, known);
    }
    return known;
  };
  const own = lines.map(ownFeatures);
  const kept = lines.map((line) => rules.keeps(line));
  const keptBefore = new Float32Array(lines.length + 1);
  kept.forEach((keep, at) => (keptBefore[at + 1] = (keptBefore[at] ?? 0) + (keep ? (lines[at]?.text.length ?? 0) : 0)));
  const title = { text: stated.title ?? '', words: wordSet(stated.title ?? '') };
  const headline = headlineAt(lines, own, title);
  const ofTexts = coverage(lines, stated.texts);
  const ofOthers = coverage(lines, stated.others);
  const isHeadingAt = (at: number) => {
    const line = lines[at];
    return line ? ofBlock(line.block).isHeading : 0;
  };
  const near = (at: number) => own[at] ?? NOTHING;
  /** What share of the characters of a line and of so many to both sides. */
  const share = (of: Float32Array, at: number, radius: number) => {
    const [from, to] = [Math.max(0, at - radius), Math.min(lines.length, at + radius + 1)];
    return ((of[to] ?? 0) - (of[from] ?? 0)) / Math.max(1, (sums.chars[to] ?? 0) - (sums.chars[from] ?? 0));
  };
  const announced = lines.map(({ text }) => ({
    others: count(announcesOthers(text)),
    comments: count(announcesComments(text)),
  }));
  // One piece of memory for a page: a thousand small ones cost more than all that is put into them.
  const all = new Float32Array(lines.length * FEATURES.length);
  let heading = -1;
  return lines.map((line, at) => {
    const it = own[at] ?? NOTHING;
    const block = ofBlock(line.block);
    const isHeading = block.isHeading === 1;
    if (isHeading) heading = at;
    const over = isHeading ? -1 : heading;
    const headingLine = over < 0 ? undefined : lines[over];
    const values = [
      // words
      it.length,
      it.links,
      it.marks,
      it.ends,
      it.capitals,
      it.digits,
      it.wordLength,
      line.prose / Math.max(1, line.text.length),
      it.unspaced,
      // tag
      block.isParagraph,
      block.isEntry,
      block.isCell,
      block.isHeading,
      block.isCode,
      block.isTerm,
      block.isBox,
      block.inLink,
      block.inFigure,
      block.inQuote,
      block.inForm,
      block.inList,
      block.inTable,
      block.property,
      // place
      block.depth,
      (sums.chars[at] ?? 0) / chars,
      (sums.prose[at] ?? 0) / prose,
      headline < 0 ? -1 : Math.max(-50, Math.min(200, at - headline)),
      count(at < headline),
      // rules
      count(kept[at] ?? false),
      count(at >= main.from && at < main.to),
      Math.min(50, Math.max(0, main.from - at)),
      Math.min(50, Math.max(0, at - main.to + 1)),
      block.cutAround,
      block.cutBox,
      block.hidden,
      count(isLineOfClutter(line.text)),
      count(isPreambleLine(line.text)),
      count(isTailLine(line.text)),
      announced[at]?.others ?? 0,
      announced[at]?.comments ?? 0,
      count(saysWhen(line.text)),
      share(keptBefore, at, 3),
      // names
      ...block.named,
      block.roleAround,
      // neighbours
      near(at - 2).length,
      near(at - 1).length,
      near(at + 1).length,
      near(at + 2).length,
      near(at - 2).links,
      near(at - 1).links,
      near(at + 1).links,
      near(at + 2).links,
      share(sums.prose, at, 2),
      share(sums.prose, at, 6),
      share(sums.links, at, 6),
      near(at - 1).ends,
      near(at + 1).ends,
      isHeadingAt(at - 1),
      isHeadingAt(at + 1),
      // headings
      over < 0 ? 100 : Math.min(100, at - over),
      headingLine ? ofBlock(headingLine.block).level : 0,
      headingLine ? headingLine.links / headingLine.text.length : 0,
      announced[over]?.others ?? 0,
      announced[over]?.comments ?? 0,
      count(over >= 0 && over === headline),
      // boxes
      ...block.boxes,
      // repetition
      ...block.alike,
      // stated
      likeness(line.text, title),
      ofTexts[at] ?? 0,
      ofOthers[at] ?? 0,
      count(stated.texts.length > 0),
    ];
    const features = all.subarray(at * values.length, (at + 1) * values.length);
    features.set(values);
    return features;
  });
}
