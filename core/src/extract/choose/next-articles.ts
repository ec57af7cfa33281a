import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  label,
  type PageElement,
  type PageNode,
  startOfText,
} from '../page/page-tree';
import { sharedWords, wordsOf } from '../page/words';
import type { Cuts } from './cuts';
import { isPreambleLine, saysWhen } from './lines';

/** Shorter boxes are teasers, and are judged as such. In characters. */
const MIN_ARTICLE = 200;
/** A headline agrees with the title when so many of their words are the same; a stranger's has hardly any. */
const AGREES = 0.6;
const STRANGE = 0.3;
const MOST_BOXES = 200;

/**
 * Takes out whole articles that a page appends to its own (the next one, the one before): boxes of one make side by side, each
 * with a headline of the first rank and a date or who wrote it, of which one has the headline that the page has as its title.
 *
 * @param title of the page; without it nothing is told apart
 */
export function removeNextArticles(body: PageElement, title: string | null, cuts: Cuts): void {
  if (title === null) return;
  const boxes = new Set<PageElement>();
  for (const heading of descendants(body)) {
    if (heading.tagName !== 'h1' || boxes.size >= MOST_BOXES) continue;
    for (let at: PageNode | null = heading.parentNode; at && 'tagName' in at && at !== body; at = at.parentNode)
      boxes.add(at);
  }
  for (const box of boxes) {
    const parent = box.parentNode;
    if (!parent || !('tagName' in parent) || cuts.taken.has(box) || agreement(box, title) < AGREES) continue;
    const strangers = elementsIn(parent).filter(
      (each) =>
        each !== box &&
        boxes.has(each) &&
        makeOf(each) === makeOf(box) &&
        agreement(each, title) < STRANGE &&
        isArticle(each),
    );
    cuts.take(parent, new Set<PageNode>(strangers), 'around');
  }
}

const LINE = /^(?:p|div|span|address)$/;

/** What an element is made as: its tag and classes. */
export function makeOf(element: PageElement): string {
  return `${element.tagName} ${attribute(element, 'class') ?? ''}`;
}

function agreement(box: PageElement, title: string): number {
  const heading = findElement(box, (each) => each.tagName === 'h1');
  return heading ? sharedWords(new Set(wordsOf(startOfText(heading, 300))), new Set(wordsOf(title))) : 0;
}

function isArticle(box: PageElement): boolean {
  return (
    startOfText(box, MIN_ARTICLE).length >= MIN_ARTICLE &&
    findElement(
      box,
      (each) =>
        each.tagName === 'time' ||
        (/date|time|byline|meta/.test(label(each)) && saysWhen(startOfText(each, 60))) ||
        ((/byline|author/.test(label(each)) || LINE.test(each.tagName)) && isPreambleLine(startOfText(each, 60))),
    ) !== undefined
  );
}
