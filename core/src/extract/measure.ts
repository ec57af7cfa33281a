import { isElement, isText, tidy, WITHOUT_TEXT, type PageElement, type PageNode } from './page-tree';

/** How much of an element is text to be read, and how much it shows in all. */
export interface Measure {
  /** Characters of prose. */
  prose: number;
  /** Prose, and what stands around it: links in full, scraps in part. */
  visible: number;
}

/** A label, a number, a date: a little of them belongs in any text. */
const SCRAP_COUNTS = 0.3;

/** The measures of all blocks, from the inside out, in one pass. */
export function measure(root: PageElement): Map<PageElement, Measure> {
  const measures = new Map<PageElement, Measure>();
  const visit = (element: PageElement): Measure => {
    const sum: Measure = { prose: 0, visible: 0 };
    let line = { text: '', links: 0 };
    const endLine = () => {
      const { prose, visible } = measureLine(tidy(line.text), line.links, element.tagName);
      sum.prose += prose;
      sum.visible += visible;
      line = { text: '', links: 0 };
    };
    const phrase = (node: PageNode, linked: boolean) => {
      if (isText(node)) {
        line.text += node.value;
        if (linked) line.links += node.value.trim().length;
      } else if (isElement(node)) {
        if (node.tagName === 'br') line.text += '\n';
        else if (!PHRASES.has(node.tagName)) {
          endLine();
          const inner = visit(node);
          sum.prose += inner.prose;
          sum.visible += inner.visible;
        } else node.childNodes.forEach((child) => phrase(child, linked || node.tagName === 'a'));
      }
    };
    if (!WITHOUT_TEXT.has(element.tagName)) element.childNodes.forEach((child) => phrase(child, false));
    endLine();
    measures.set(element, sum);
    return sum;
  };
  visit(root);
  return measures;
}

function measureLine(text: string, links: number, tagName: string): Measure {
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

const TABLE_PART = /^(?:table|tbody|tr)$/;

const PHRASES = new Set(
  'a abbr b bdi bdo br cite code data del dfn em font i img ins kbd mark q rp rt ruby s samp small span strong sub sup time u var wbr'.split(
    ' ',
  ),
);

const SENTENCE_MARKS = /[.!?;:,،。、！？؟«»“”]/g;
