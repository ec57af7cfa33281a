import { isBlank, isElement, isLink, isText, type PageElement, type PageNode, tidy, WITHOUT_TEXT } from './page-tree';

/** How much of an element is text to be read, and how much it shows in all. */
export interface Measure {
  /** Characters of prose. */
  prose: number;
  /** Prose, and what stands around it: links in full, scraps in part. */
  visible: number;
}

/** A label, a number, a date: a little of them belongs in any text. */
const SCRAP_COUNTS = 0.3;

/** A block while its lines are gathered. */
interface Gathering extends Measure {
  tagName: string;
  text: string;
  links: number;
}

/** The measures of all blocks, from the inside out, in one pass. */
export function measure(root: PageElement): Map<PageElement, Measure> {
  const measures = new Map<PageElement, Measure>();
  measureBlock(root, measures);
  return measures;
}

function measureBlock(element: PageElement, measures: Map<PageElement, Measure>): Measure {
  const block: Gathering = { tagName: element.tagName, text: '', links: 0, prose: 0, visible: 0 };
  if (!WITHOUT_TEXT.has(element.tagName)) for (const child of element.childNodes) gather(child, false, block, measures);
  endLine(block);
  measures.set(element, block);
  return block;
}

function gather(node: PageNode, linked: boolean, block: Gathering, measures: Map<PageElement, Measure>): void {
  if (isText(node)) {
    // Between two blocks there is only white space, and a line begins behind it.
    if (block.text !== '' || !isBlank(node.value)) block.text += node.value;
    if (linked) block.links += node.value.trim().length;
  } else if (isElement(node)) {
    if (node.tagName === 'br') block.text += '\n';
    else if (PHRASES.has(node.tagName)) {
      const inLink = linked || isLink(node);
      for (const child of node.childNodes) gather(child, inLink, block, measures);
    } else {
      endLine(block);
      const inner = measureBlock(node, measures);
      block.prose += inner.prose;
      block.visible += inner.visible;
    }
  }
}

function endLine(block: Gathering): void {
  if (block.text !== '') {
    const { prose, visible } = measureLine(tidy(block.text), block.links, block.tagName);
    block.prose += prose;
    block.visible += visible;
  }
  block.text = '';
  block.links = 0;
}

export function measureLine(text: string, links: number, tagName: string): Measure {
  const length = text.length;
  if (length === 0) return { prose: 0, visible: 0 };
  const linkShare = Math.min(1, links / length);
  if (tagName === 'pre' || tagName === 'code') return { prose: 0.6 * length, visible: 0.6 * length };
  const unspaced = UNSPACED.test(text);
  const short = unspaced ? 12 : 25;
  if (length < short || linkShare > 0.5)
    return { prose: 0, visible: linkShare * length + SCRAP_COUNTS * (1 - linkShare) * length };
  const marks = text.match(SENTENCE_MARKS)?.length ?? 0;
  const sentences = marks / length > 0.004 ? 1 : 0.35;
  // A line of teaser length counts half; a paragraph counts in full.
  const paragraph = length >= (unspaced ? 35 : 90) ? 1 : 0.5;
  const prose = length * (1 - linkShare) ** 2 * sentences * paragraph;
  return { prose, visible: prose + links + SCRAP_COUNTS * Math.max(0, length - links - prose) };
}

const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Thai}]/u;

/** Elements that stand inside a line. */
export const PHRASES: ReadonlySet<string> = new Set(
  'a abbr b bdi bdo br cite code data del dfn em font i img ins kbd mark q rp rt ruby s samp small span strong sub sup time u var wbr'.split(
    ' ',
  ),
);

const SENTENCE_MARKS = /[.!?;:,،。、！？؟«»“”]/g;
