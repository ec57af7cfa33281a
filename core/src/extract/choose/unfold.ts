import { attribute, descendants, elementsIn, isElement, type PageElement, startOfText } from '../page/page-tree';
import { linkLength } from './clutter';

/** What is folded is at least a sentence; less is a menu or a label. In characters. */
const MIN_FOLDED = 60;
/** One thing that opens may be anything; two are how questions and their answers are folded. */
const MIN_FOLDS = 2;
const MOST_FOLDS = 500;
const MAX_QUESTION = 300;
/** What is folded is no longer; a whole page behind one button is left as it is. Also, many buttons for it would have it read as often. */
const MAX_FOLDED = 20_000;

/**
 * Opens what a page folds until it is pressed, questions and their answers above all (WAI-ARIA Authoring Practices, accordion and
 * disclosure: a button with `aria-expanded`, and what it controls): what opened it becomes a heading. Changes the page's tree.
 */
export function unfold(body: PageElement): void {
  const openers: PageElement[] = [];
  const byId = new Map<string, PageElement>();
  for (const element of descendants(body)) {
    const id = attribute(element, 'id');
    if (id !== undefined && !byId.has(id)) byId.set(id, element);
    if (attribute(element, 'aria-expanded') === 'false' && openers.length < MOST_FOLDS) openers.push(element);
  }
  const folds = openers.flatMap((opener) => {
    const folded = byId.get(attribute(opener, 'aria-controls') ?? '') ?? nextTo(opener);
    return folded && isFoldedAway(folded) && saysMore(folded) && isQuestion(opener) ? [{ opener, folded }] : [];
  });
  if (folds.length < MIN_FOLDS) return;
  for (const { opener, folded } of folds) {
    show(folded);
    const inHeading = headingAround(opener);
    opener.tagName = opener.nodeName = inHeading ? 'span' : 'h3';
    opener.attrs = opener.attrs.filter(({ name }) => name === 'id');
  }
}

/** What stands behind what opens it, or behind the heading around that. */
function nextTo(opener: PageElement): PageElement | undefined {
  const from = headingAround(opener) ?? opener;
  const parent = from.parentNode;
  if (!parent || !isElement(parent)) return undefined;
  const beside = elementsIn(parent);
  return beside[beside.indexOf(from) + 1];
}

function headingAround(opener: PageElement): PageElement | undefined {
  for (let at = opener.parentNode, up = 0; at && isElement(at) && up < 3; at = at.parentNode, up++)
    if (/^h[1-6]$/.test(at.tagName)) return at;
  return undefined;
}

const FOLDED_STYLE = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)[^;]*/gi;

function isFoldedAway(element: PageElement): boolean {
  return (
    attribute(element, 'hidden') !== undefined ||
    attribute(element, 'aria-hidden') === 'true' ||
    (attribute(element, 'style') ?? '').search(FOLDED_STYLE) >= 0
  );
}

/** Sentences, and no menu. */
function saysMore(folded: PageElement): boolean {
  const { length } = startOfText(folded, MAX_FOLDED);
  const isSome = folded.tagName !== 'nav' && length >= MIN_FOLDED && length <= MAX_FOLDED;
  return isSome && linkLength(folded) < 0.3 * length;
}

function isQuestion(opener: PageElement): boolean {
  const { length } = startOfText(opener, MAX_QUESTION);
  return length >= 3 && length <= MAX_QUESTION;
}

function show(folded: PageElement): void {
  folded.attrs = folded.attrs.flatMap(({ name, value, ...more }) =>
    name === 'hidden' || name === 'aria-hidden'
      ? []
      : [{ ...more, name, value: name === 'style' ? value.replace(FOLDED_STYLE, '') : value }],
  );
}
