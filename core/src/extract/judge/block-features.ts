import { evidenceOfName, type NameEvidence, NO_EVIDENCE } from '../choose/clutter';
import { makeOf } from '../choose/next-articles';
import { attribute, elementsIn, isElement, type PageElement } from '../page/page-tree';
import { count } from './line-features';
import type { PageLine, Range } from './page-lines';

/** What the rules of choose/ made of a page: which pieces they kept, and where they found the text. */
export interface RulesWord {
  main: PageElement;
  /** True for a line that the rules keep. */
  keeps(line: PageLine): boolean;
  /** Why an element was taken out: as surroundings, or as a box in the text. */
  cuts: ReadonlyMap<PageElement, 'around' | 'box'>;
}

/** Farther away than this is not near, in levels of the tree. */
const FAR = 12;

const TEXT_PROPERTY =
  /\b(?:articleBody|recipeIngredient|ingredients|recipeInstructions|text|step|itemListElement|description|headline)\b/;

/** Running sums over the lines of a page. */
export interface Sums {
  chars: Float32Array;
  links: Float32Array;
  prose: Float32Array;
}

export function running(lines: readonly PageLine[]): Sums {
  const of = (value: (line: PageLine) => number) => {
    const sums = new Float32Array(lines.length + 1);
    lines.forEach((line, at) => (sums[at + 1] = (sums[at] ?? 0) + value(line)));
    return sums;
  };
  return { chars: of((line) => line.text.length), links: of((line) => line.links), prose: of((line) => line.prose) };
}

/** What the block of a line, and what that stands in, say of the line. */
export interface BlockFeatures {
  isParagraph: number;
  isEntry: number;
  isCell: number;
  isHeading: number;
  isCode: number;
  isTerm: number;
  isBox: number;
  inLink: number;
  inFigure: number;
  inQuote: number;
  inForm: number;
  inList: number;
  inTable: number;
  property: number;
  depth: number;
  level: number;
  cutAround: number;
  cutBox: number;
  hidden: number;
  named: number[];
  roleAround: number;
  boxes: number[];
  alike: number[];
}

const NAMES: readonly (keyof NameEvidence)[] = ['around', 'beside', 'comments', 'never', 'text', 'body', 'parts'];

/** What the features of a block are read from. */
export interface Page {
  body: PageElement;
  ranges: ReadonlyMap<PageElement, Range>;
  sums: Sums;
  rules: RulesWord;
  lines: readonly PageLine[];
  /** What is known of the children of an element, by what they are made as. */
  rows: Map<PageElement, Map<string, number[]>>;
}

/** The lines of a range, measured together. */
function measureOf({ from, to }: Range, sums: Sums): { chars: number; links: number; prose: number } {
  const chars = Math.max(1, (sums.chars[to] ?? 0) - (sums.chars[from] ?? 0));
  return {
    chars,
    links: ((sums.links[to] ?? 0) - (sums.links[from] ?? 0)) / chars,
    prose: ((sums.prose[to] ?? 0) - (sums.prose[from] ?? 0)) / chars,
  };
}

export function blockFeatures(block: PageElement, { body, ranges, sums, rules, lines, rows }: Page): BlockFeatures {
  const { tagName } = block;
  const named = NAMES.map(() => FAR);
  const out: BlockFeatures = {
    isParagraph: count(tagName === 'p'),
    isEntry: count(tagName === 'li'),
    isCell: count(tagName === 'td' || tagName === 'th'),
    isHeading: count(/^h[1-6]$/.test(tagName)),
    isCode: count(tagName === 'pre'),
    isTerm: count(tagName === 'dt' || tagName === 'dd'),
    isBox: count(tagName === 'div' || tagName === 'section'),
    inLink: 0,
    inFigure: 0,
    inQuote: 0,
    inForm: 0,
    inList: 0,
    inTable: 0,
    property: 0,
    depth: 0,
    level: /^h[1-6]$/.test(tagName) ? Number(tagName[1]) : 0,
    cutAround: 0,
    cutBox: 0,
    hidden: 0,
    named,
    roleAround: FAR,
    boxes: [],
    alike: [0, 0, 0, 0],
  };
  const page = measureOf({ from: 0, to: lines.length }, sums);
  let size = 1;
  let up = 0;
  for (let at: PageElement | null = block; at && at !== body; at = parentOf(at), up++) {
    switch (at.tagName) {
      case 'a':
        out.inLink = 1;
        break;
      case 'figure':
      case 'figcaption':
        out.inFigure = 1;
        break;
      case 'blockquote':
        out.inQuote = 1;
        break;
      case 'form':
      case 'fieldset':
      case 'label':
        out.inForm = 1;
        break;
      case 'ul':
      case 'ol':
      case 'dl':
        out.inList += 1;
        break;
      case 'table':
        out.inTable += 1;
        break;
    }
    const property = up <= 4 ? attribute(at, 'itemprop') : undefined;
    if (property !== undefined && TEXT_PROPERTY.test(property)) out.property = 1;
    const cut = rules.cuts.get(at);
    if (cut === 'around') out.cutAround = 1;
    else if (cut === 'box') out.cutBox = 1;
    const evidence = evidenceOfName(at);
    if (evidence !== NO_EVIDENCE) {
      if (evidence.hidden) out.hidden = 1;
      if (up < FAR) noteNames(evidence, up, named);
      if (up < FAR && evidence.role && out.roleAround === FAR) out.roleAround = up;
    }
    const range = ranges.get(at);
    if (range && range.to - range.from > size && out.boxes.length < 12) {
      const box = measureOf(range, sums);
      size = range.to - range.from;
      out.boxes.push(box.links, box.prose, box.chars / page.chars, Math.log1p(size));
    }
    if (out.alike[0] === 0 && up <= 6) out.alike = alikeOf(at, { body, ranges, sums, rules, lines, rows });
    out.depth++;
  }
  while (out.boxes.length < 12) out.boxes.push(page.links, page.prose, 1, Math.log1p(lines.length));
  return out;
}

/** Of each kind of name, how far up the nearest is. */
function noteNames(evidence: NameEvidence, up: number, named: number[]): void {
  for (const [index, name] of NAMES.entries()) if (evidence[name] && named[index] === FAR) named[index] = up;
}

function parentOf(element: PageElement): PageElement | null {
  const parent = element.parentNode;
  return parent && isElement(parent) ? parent : null;
}

const NOT_ALIKE = [0, 0, 0, 0];
const MIN_ALIKE = 3;

/** How many siblings of an element are of its make, if three or more, with how they are linked, long and led by links. */
function alikeOf(element: PageElement, page: Page): number[] {
  const parent = parentOf(element);
  if (!parent || element.tagName === 'p' || /^h[1-6]$/.test(element.tagName)) return NOT_ALIKE;
  let rows = page.rows.get(parent);
  if (!rows) {
    const makes = new Map<string, PageElement[]>();
    for (const each of elementsIn(parent)) {
      const make = makeOf(each);
      const known = makes.get(make);
      if (known) known.push(each);
      else makes.set(make, [each]);
    }
    rows = new Map([...makes].map(([make, each]) => [make, each.length < MIN_ALIKE ? NOT_ALIKE : rowOf(each, page)]));
    page.rows.set(parent, rows);
  }
  return rows.get(makeOf(element)) ?? NOT_ALIKE;
}

function rowOf(alike: readonly PageElement[], { ranges, sums, lines }: Page): number[] {
  let [chars, links, led] = [0, 0, 0];
  for (const each of alike) {
    const range = ranges.get(each);
    if (!range || range.to === range.from) continue;
    const box = measureOf(range, sums);
    chars += box.chars;
    links += box.links * box.chars;
    const first = lines[range.from];
    if (first && first.links > 0.6 * first.text.length) led++;
  }
  return [Math.log1p(alike.length), links / Math.max(1, chars), Math.log1p(chars / alike.length), led / alike.length];
}
