import { cleanInside } from '../choose/boxes';
import { isNeverText, removeSurroundings } from '../choose/clutter';
import { Cuts } from '../choose/cuts';
import { findMainText, findPrelude } from '../choose/main-text';
import { removeNextArticles } from '../choose/next-articles';
import { measure, PHRASES } from '../page/measure';
import { attribute, descendants, isElement, isLink, isText, type PageElement, type PageNode } from '../page/page-tree';
import { FEATURES, featuresOf, type Stated } from './features';
import { type Forest, likelihood } from './forest';
import { linesOf, type PageLine, type PageLines, type Range } from './page-lines';

const [RULES_KEEP = 0, OF_STATED = 0, HIDDEN = 0, ANNOUNCES_OTHERS = 0, ANNOUNCES_COMMENTS = 0] = [
  'rulesKeep',
  'ofStated',
  'hidden',
  'announcesOthers',
  'announcesComments',
].map((name) => FEATURES.indexOf(name));
/** Of a line's words so many must stand in what the page states of its text. */
const STATED = 0.8;

/** A page's lines with what is known of each, before they are judged. */
export interface Evidence {
  page: PageLines;
  features: Float32Array[];
  /** Where the rules find the text. */
  main: PageElement;
  cuts: Cuts;
}

/** Looks at every line of a page, and asks the rules. The page's tree is as it was when this is over. */
export function gatherEvidence(body: PageElement, stated: Stated): Evidence {
  const page = linesOf(body);
  const cuts = new Cuts();
  removeNextArticles(body, stated.title, cuts);
  removeSurroundings(body, 'by all evidence', cuts);
  const measures = measure(body);
  const main = findMainText(body, measures);
  cleanInside(main, cuts, measures);
  const kept = new Set<PageNode>();
  for (const part of [...findPrelude(main), main]) collectTexts(part, kept);
  cuts.undo();
  const features = featuresOf(
    page,
    body,
    { main, keeps: (line) => line.pieces.some((piece) => kept.has(piece)), cuts: cuts.taken },
    stated,
  );
  return { page, features, main, cuts };
}

function collectTexts(node: PageNode, into: Set<PageNode>): void {
  if (isText(node)) into.add(node);
  else if (isElement(node)) for (const child of node.childNodes) collectTexts(child, into);
}

/** Of a page that was judged: where its text is, and the lines of it. */
export interface Judged {
  /** The parts of the page that hold the text, in document order. */
  parts: PageElement[];
  kept: { text: string; features: Float32Array; likely: number }[];
}

/**
 * Judges every line of a page by a forest, and leaves in the page's tree what is text.
 *
 * @returns null when no line is text
 */
export function judgePage(body: PageElement, stated: Stated, forest: Forest): Judged | null {
  const evidence = gatherEvidence(body, stated);
  const { lines } = evidence.page;
  const decisions = decide(evidence, forest);
  const isKept = decisions.map(({ isText: is }) => is);
  const first = isKept.indexOf(true);
  const firstLine = lines[first];
  if (!firstLine) return null;
  const pieces = (wanted: boolean) => {
    const found = new Set<PageNode>();
    for (const [at, line] of lines.entries())
      if (isKept[at] === wanted) for (const piece of line.pieces) found.add(piece);
    return found;
  };
  const root = around(evidence, firstLine, { from: first, to: isKept.lastIndexOf(true) + 1 }, body);
  prune(body, evidence, pieces(true), pieces(false), root === evidence.main);
  return {
    parts: root === evidence.main ? [...findPrelude(root), root] : [root],
    kept: lines.flatMap(({ text }, at) => {
      const features = evidence.features[at];
      return isKept[at] && features ? [{ text, features, likely: decisions[at]?.likely ?? 0 }] : [];
    }),
  };
}

/** Whether a line is text, and what decided it: the forest, what is certain of it, or the list or fold that it stands in. */
export interface Decision {
  isText: boolean;
  /** As far as the forest can tell, 0 to 1. */
  likely: number;
  by: 'forest' | 'certainty' | 'whole';
}

/** Decides for every line of a page whether it is text. */
export function decide(evidence: Evidence, forest: Forest): Decision[] {
  const judged = evidence.features.map((features): Decision => {
    const isCertain = isBeyondDoubt(features);
    const likely = isCertain ? 1 : likelihood(forest, features);
    return { isText: isEnough(likely, features, forest), likely, by: isCertain ? 'certainty' : 'forest' };
  });
  const isKept = judged.map(({ isText: is }) => is);
  keepWhole(evidence, isKept);
  return judged.map((decision, at) =>
    isKept[at] && !decision.isText ? { ...decision, isText: true, by: 'whole' } : decision,
  );
}

/** A list or a table of which so much came through is read as a whole, since a row that is missing is worse than one too many. */
const MOST_OF_LIST = 0.6;
const MIN_LINES = 3;
const LIST_PARTS = /^(?:li|tr|td|th|tbody|thead|tfoot|caption|col|colgroup|dt|dd|p)$/;

function keepWhole({ page, features }: Evidence, isKept: boolean[]): void {
  for (const [element, { from, to }] of page.ranges) {
    // What is folded in a text is as much a part of it as its neighbours, however short a question is.
    if (element.tagName === 'details' && features.slice(from, to).every((line) => line[RULES_KEEP] === 1))
      isKept.fill(true, from, to);
    if (!/^(?:table|ul|ol|dl)$/.test(element.tagName) || to - from < MIN_LINES) continue;
    const kept = isKept.slice(from, to).filter(Boolean).length;
    if (kept === to - from || kept < MOST_OF_LIST * (to - from)) continue;
    const isPlain = descendants(element).every(({ tagName }) => LIST_PARTS.test(tagName) || PHRASES.has(tagName));
    if (isPlain) for (let at = from; at < to; at++) if (features[at]?.[HIDDEN] === 0) isKept[at] = true;
  }
}

/** What the page itself states to be its text, and what says where the text ends, is not for guessing. */
function isBeyondDoubt(features: ArrayLike<number>): boolean {
  if ((features[OF_STATED] ?? 0) >= STATED && features[HIDDEN] === 0) return true;
  return features[RULES_KEEP] === 1 && (features[ANNOUNCES_OTHERS] === 1 || features[ANNOUNCES_COMMENTS] === 1);
}

function isEnough(likely: number, features: ArrayLike<number>, { threshold, lean }: Forest): boolean {
  return likely > threshold + (features[RULES_KEEP] === 1 ? -lean : lean);
}

/** The innermost element that holds all lines of a range; where that is a part of what the rules chose, what they chose. */
function around({ page, main }: Evidence, first: PageLine, { from, to }: Range, body: PageElement): PageElement {
  const holdsAll = (element: PageElement) => {
    const range = page.ranges.get(element);
    return range !== undefined && range.from <= from && range.to >= to;
  };
  // Wider than what is left of the text, so that pictures beside it stay.
  if (holdsAll(main)) return main;
  let root = first.block;
  while (root !== body && !holdsAll(root) && root.parentNode && isElement(root.parentNode)) root = root.parentNode;
  return root;
}

/** What stands in an element: lines that are text, lines that are not, pictures. */
interface Contents {
  text: boolean;
  other: boolean;
  /** One that is neither small nor the link to another page, as those of teasers are. */
  picture: boolean;
}

/** True inside a link that leads to more than a larger copy of the picture in it. */
function leadsElsewhere(element: PageElement): boolean {
  return isLink(element) && !/\.(?:jpe?g|png|gif|webp|avif)(?:$|[?#])/i.test(attribute(element, 'href') ?? '');
}

/** No wider than this is what stands beside a teaser, in CSS pixels. */
const MAX_TEASER = 240;

function isSmall(image: PageElement): boolean {
  const width = Number.parseInt(attribute(image, 'width') ?? '', 10);
  return width <= MAX_TEASER;
}

/**
 * Takes out of a page what is not text.
 *
 * @param rulesFoundIt true where the text stands in what the rules chose: what has no lines is then left to them outside, too
 */
function prune(
  body: PageElement,
  { main, cuts, page }: Evidence,
  kept: ReadonlySet<PageNode>,
  dropped: ReadonlySet<PageNode>,
  rulesFoundIt: boolean,
): void {
  const sweep = (element: PageElement, inMain: boolean, inLink: boolean): Contents => {
    const found: Contents = {
      text: false,
      other: false,
      picture: element.tagName === 'img' && !inLink && !isSmall(element),
    };
    const gone = new Set<PageNode>();
    for (const child of element.childNodes) {
      if (isText(child)) {
        if (kept.has(child)) found.text = true;
        else if (dropped.has(child)) {
          found.other = true;
          gone.add(child);
        }
      } else if (isElement(child)) {
        const isCut = cuts.taken.has(child);
        // Signs and buttons inside a line are no lines: of them the rules are believed.
        if ((isCut && !page.ranges.has(child)) || isNeverText(child) || child.tagName === 'noscript') {
          gone.add(child);
          continue;
        }
        const within = inMain || child === main;
        const inner = sweep(child, within, inLink || leadsElsewhere(child));
        found.text ||= inner.text;
        found.other ||= inner.other;
        // A picture, a rule: they have no lines, and stay where the rules leave them.
        if (!inner.text && (isCut || !within || (inner.other && !inner.picture))) gone.add(child);
        else found.picture ||= inner.picture;
      }
    }
    if (gone.size > 0) element.childNodes = element.childNodes.filter((node) => !gone.has(node));
    return found;
  };
  sweep(body, rulesFoundIt, false);
}
