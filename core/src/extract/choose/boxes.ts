import { measure } from '../page/measure';
import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  isElement,
  isLink,
  type PageElement,
  type PageNode,
  startOfText,
  textContent,
  tidy,
} from '../page/page-tree';
import { linkLength } from './clutter';
import { Cuts } from './cuts';
import { announcesSources } from './lines';
import { makeOf } from './next-articles';

/**
 * Takes out of the chosen element what stands between the paragraphs and is not part of the text: boxes of links, rows of
 * teasers. Nothing that holds much of the text is touched.
 */
export function cleanInside(main: PageElement, cuts = new Cuts(), measures = measure(main)): void {
  const all = measures.get(main)?.prose ?? 0;
  const sweep = (element: PageElement) => {
    const gone = new Set<PageNode>([...teasersAmong(element, all, measures), ...cardsAmong(element)]);
    for (const child of elementsIn(element)) {
      if (gone.has(child)) continue;
      if (!BOXES.test(child.tagName)) {
        if (!WHOLE.test(child.tagName)) sweep(child);
        continue;
      }
      const { prose, visible } = measures.get(child) ?? { prose: 0, visible: 0 };
      if (holdsNotes(child) || isOfSources(child)) continue;
      const isBox = prose <= 0.3 * all && (isLinkBox(child, prose, visible) || isTeaserRow(child));
      if (isBox && !isOfAmounts(child) && !isOfSentences(child)) gone.add(child);
      else sweep(child);
    }
    cuts.take(element, gone, 'box');
  };
  sweep(main);
}

/** What a text has drawn on is full of links, and belongs to it. */
function isOfSources(element: PageElement): boolean {
  const parent = element.parentNode;
  if (!parent || !isElement(parent)) return false;
  const beside = elementsIn(parent);
  return [beside[beside.indexOf(element) - 1], elementsIn(element)[0]].some(
    (each) => each !== undefined && /^h[1-6]$/.test(each.tagName) && announcesSources(startOfText(each, 80)),
  );
}

/** Footnotes are full of links, and belong to the text. */
function holdsNotes(element: PageElement): boolean {
  if (element.tagName !== 'ol' && element.tagName !== 'section' && element.tagName !== 'div') return false;
  const notes = element.tagName === 'ol' ? element : elementsIn(element).find((each) => each.tagName === 'ol');
  const entries = notes ? elementsIn(notes) : [];
  return (
    entries.length > 0 &&
    entries.every((each) =>
      /^(?:user-content-)?(?:cite|fn|foot|note|ref|endnote|_ftn|in-)/i.test(attribute(each, 'id') ?? ''),
    )
  );
}

const BOXES = /^(?:div|section|ul|ol|dl|aside|table|article|center)$/;
const WHOLE = /^(?:figure|pre|blockquote|p|h[1-6]|details|math)$/;
/** Boxes of links below this length may be a note to the reader or a line of references. */
const MIN_BOX = 30;

function isLinkBox(element: PageElement, prose: number, visible: number): boolean {
  if (visible < MIN_BOX) return false;
  const links = linkLength(element);
  return prose < 0.3 * visible && links > 0.55 * visible;
}

/** Lists of what is needed, in which what it is links to its own page: "½ cup potato starch". */
function isOfAmounts(element: PageElement): boolean {
  const entries = descendants(element)
    .filter((each) => /^(?:li|dd|tr)$/.test(each.tagName))
    .slice(0, MOST_ENTRIES);
  const amounts = entries.filter((each) => {
    const text = startOfText(each, 120);
    return AMOUNT.test(text) && linkLength(each) < text.length;
  });
  return amounts.length >= 3 && amounts.length >= 0.5 * entries.length;
}

/** Lists whose entries lead up to their links in words: "From an array via Arrays.stream(Object[])". */
function isOfSentences(element: PageElement): boolean {
  if (element.tagName !== 'ul' && element.tagName !== 'ol') return false;
  const entries = elementsIn(element).slice(0, MOST_ENTRIES);
  const led = entries.filter((each) => LEADS_UP.test(beforeLink(each)));
  return led.length >= 3 && led.length >= 0.6 * entries.length;
}

const LEADS_UP = /^\s*\p{L}[\p{L}’'-]*\s+\p{L}/u;

/** The words of an entry before its first link, as far as they stand in it directly; nothing for one without a link. */
function beforeLink(entry: PageElement): string {
  let before = '';
  for (const node of entry.childNodes) {
    if (isElement(node) && (isLink(node) || linkLength(node) > 0)) return before;
    before += startOfText(node, MAX_LEAD);
  }
  return '';
}

const MAX_LEAD = 80;
const MOST_ENTRIES = 60;
/** A number that something is counted or weighed with, not the year or the day of a piece of news. */
const AMOUNT =
  /^\s*(?:\d{1,4}(?:[.,/]\d{1,3})?|[¼½¾⅓⅔⅛])\s*(?:[¼½¾⅓⅔⅛x×]\s*)?\p{L}|\s\d{1,4}(?:[.,]\d)?\s?(?:g|kg|ml|l|cl|dl)\b/u;

/** Three or more boxes of one make, each led by a link and short: headlines of other articles. */
function isTeaserRow(element: PageElement): boolean {
  const makes = new Map<string, PageElement[]>();
  for (const child of elementsIn(element)) {
    if (!/^(?:li|div|article|section|td|dd|tr)$/.test(child.tagName)) return false;
    const make = makeOf(child);
    makes.set(make, [...(makes.get(make) ?? []), child]);
  }
  const row = [...makes.values()].sort((a, b) => b.length - a.length)[0] ?? [];
  if (row.length < 3) return false;
  const led = row.filter((each) => {
    const text = tidy(textContent(each));
    const link = firstLink(each);
    return link !== undefined && text.length < 500 && link.length > 12 && text.indexOf(link) < 40;
  });
  return led.length >= 0.8 * row.length && linkLength(element) > 0.35 * tidy(textContent(element)).length;
}

/** A heading that leads away and a sentence or two: no longer than this. */
const MAX_TEASER = 400;
/** What is announced between the paragraphs is little beside them; where it is more, it is the text: a list of things with their links. */
const MOST_TEASERS = 0.2;

/** Between the paragraphs of a text, two boxes or more of one make that each announce another page: a linked heading and a sentence. */
function teasersAmong(element: PageElement, all: number, measures: ReturnType<typeof measure>): PageElement[] {
  const children = elementsIn(element);
  const paragraphs = children.filter((child) => child.tagName === 'p').length;
  const makes = new Map<string, PageElement[]>();
  for (const child of children)
    if (/^(?:div|aside|section|article)$/.test(child.tagName))
      makes.set(makeOf(child), [...(makes.get(makeOf(child)) ?? []), child]);
  return [...makes.values()].flatMap((boxes) => {
    const prose = boxes.reduce((sum, box) => sum + (measures.get(box)?.prose ?? 0), 0);
    const areTeasers =
      boxes.length >= 2 && paragraphs > boxes.length && prose <= MOST_TEASERS * all && boxes.every(isTeaser);
    return areTeasers ? boxes : [];
  });
}

/** Two links or more side by side that each wrap a heading and more: cards of other pages. */
function cardsAmong(element: PageElement): PageElement[] {
  const cards = elementsIn(element).filter(isCard);
  return cards.length < 2 ? [] : cards;
}

function isCard(element: PageElement): boolean {
  if (!isLink(element) || (attribute(element, 'href') ?? '').startsWith('#') || elementsIn(element).length < 2)
    return false;
  const holdsHeading = findElement(element, ({ tagName }) => /^h[2-6]$/.test(tagName)) !== undefined;
  return holdsHeading && startOfText(element, MAX_TEASER).length <= MAX_TEASER;
}

function isTeaser(box: PageElement): boolean {
  const length = startOfText(box, MAX_TEASER).length;
  if (length === 0 || length > MAX_TEASER) return false;
  const headings = descendants(box).filter((each) => /^h[2-6]$/.test(each.tagName));
  const [heading] = headings;
  if (!heading || headings.length > 1) return false;
  const link = [...descendants(heading), ...ancestorsWithin(heading, box)].find(isLink);
  const leadsAway = link !== undefined && !(attribute(link, 'href') ?? '').startsWith('#');
  return leadsAway && tidy(textContent(link)).length >= 0.9 * tidy(textContent(heading)).length;
}

function ancestorsWithin(element: PageElement, box: PageElement): PageElement[] {
  const found: PageElement[] = [];
  for (let at = element.parentNode; at && isElement(at) && at !== box; at = at.parentNode) found.push(at);
  return found;
}

function firstLink(element: PageElement): string | undefined {
  for (const child of elementsIn(element)) {
    const text = isLink(child) ? tidy(textContent(child)) : firstLink(child);
    if (text) return text;
  }
  return undefined;
}
