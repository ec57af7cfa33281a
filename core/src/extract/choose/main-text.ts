import { measure } from '../page/measure';
import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  isElement,
  label,
  type PageElement,
  textContent,
  tidy,
} from '../page/page-tree';
import { isNamedAsBody, linkLength } from './clutter';
import { isLineOfClutter, isPreambleLine } from './lines';

/**
 * Finds the element that holds the text.
 *
 * Every line of the page (a run of phrasing in a block) is *prose* by its length, as far as it is neither link nor
 * scrap; both prose and all that is visible add up towards the root. An element is the better a candidate
 *
 * - the more of the page's prose it holds (its *coverage*), and
 * - the more of what it shows is prose (its *purity*: menus, teasers and boxes bring it down),
 *
 * weighed by what it calls itself. The page's own word (`itemprop=articleBody`, a single `article`) weighs, but
 * does not decide. The innermost of equals is taken.
 *
 * @param measures of the blocks of the body, where they are known
 */
export function findMainText(body: PageElement, measures = measure(body)): PageElement {
  const total = measures.get(body)?.prose ?? 0;
  if (total === 0) return body;
  let best = body;
  let bestScore = 0;
  for (const [element, { prose, visible }] of measures) {
    if (prose < MIN_COVERAGE * total || NO_CANDIDATE.test(element.tagName)) continue;
    const score = (prose / total) * (prose / visible) ** PURITY_POWER * labelFactor(element);
    // Measures are listed from the inside out, so that of equals the innermost comes first.
    if (score > bestScore * 1.0001) {
      best = element;
      bestScore = score;
    }
  }
  return outOfTable(best);
}

/** Less of the page's prose than this is no article, unless nothing else is. */
const MIN_COVERAGE = 0.12;
/** How much more purity counts than coverage. */
const PURITY_POWER = 1.4;
const NO_CANDIDATE = /^(?:p|pre|blockquote|ul|ol|dl|li|dd|dt|figure|figcaption|h[1-6]|tr)$/;

/** What an element's name and labels say for it, as a factor. */
function labelFactor(element: PageElement): number {
  const named = `${label(element)} ${attribute(element, 'itemprop') ?? ''}`;
  let factor = 1;
  if (/\barticlebody\b/i.test(named)) factor *= 1.6;
  if (element.tagName === 'article') factor *= 1.25;
  if (element.tagName === 'main' || attribute(element, 'role') === 'main') factor *= 1.15;
  if (isNamedAsBody(element)) factor *= 1.35;
  else if (NAMED_AS_TEXT.test(named)) factor *= 1.08;
  if (NAMED_AS_COMMENTS.test(named)) factor *= 0.2;
  else if (NAMED_AS_BESIDE.test(named)) factor *= 0.6;
  return factor;
}

const NAMED_AS_COMMENTS =
  /(?:^|[\s_-])(?:comments?|commentlist|commentaires?|kommentare?|comentarios?|reactions?|reactie|replies|respond|disqus|discussion)(?:$|[\s_-])/i;
const NAMED_AS_BESIDE =
  /(?:^|[\s_-])(?:sidebar|aside|rail|related|recommended|teasers?|promo|widgets?|footer|header|nav|more|popular|trending|latest)(?:$|[\s_-])/i;

const TABLE_PART = /^(?:table|tbody|tr)$/;

/** A cell that holds nearly all is a column of an old page's layout; rows that share are a table, and belong together. */
function outOfTable(element: PageElement): PageElement {
  let at = element;
  while (TABLE_PART.test(at.tagName) && at.parentNode && 'tagName' in at.parentNode) at = at.parentNode;
  return at;
}

/**
 * What stands between the headline and the text and belongs to it: the lead picture, the standfirst. Pages often
 * keep both outside the element that holds the paragraphs.
 *
 * @returns elements in document order, to be put before the text
 */
export function findPrelude(main: PageElement): PageElement[] {
  const prelude: PageElement[] = [];
  for (let at = main; ;) {
    const parent = at.parentNode;
    if (!parent || !('tagName' in parent) || parent.tagName === 'html') return [];
    const before = elementsIn(parent).slice(0, elementsIn(parent).indexOf(at));
    const headline = before.findLastIndex((each) => each.tagName === 'h1' || holds(each, 'h1'));
    prelude.unshift(...before.slice(headline + 1).flatMap(preludeIn));
    const inside = headline === -1 ? undefined : before[headline];
    if (inside)
      prelude.unshift(
        ...(inside.tagName === 'h1' ? [] : descendants(inside))
          .filter((each) => each.tagName === 'figure' || /standfirst|lead|dek|subtitle|summary/.test(label(each)))
          .flatMap(preludeIn),
        ...behindHeadline(inside),
      );
    if (headline !== -1) {
      // A picture above the headline, in the same box, is the lead picture too.
      prelude.unshift(...before.slice(0, headline).filter(isPicture));
      return prelude;
    }
    if (/^(?:body|main)$/.test(parent.tagName)) return prelude.filter(isPicture).slice(0, 1);
    at = parent;
  }
}

/** The standfirst in the box of a headline: what stands right behind it there and says something. */
function behindHeadline(box: PageElement): PageElement[] {
  const headline = box.tagName === 'h1' ? box : findElement(box, ({ tagName }) => tagName === 'h1');
  const parent = headline?.parentNode;
  if (!headline || !parent || !isElement(parent)) return [];
  const beside = elementsIn(parent);
  const next = beside[beside.indexOf(headline) + 1];
  const isStandfirst = next && /^(?:p|h[2-4])$/.test(next.tagName) && isSentence(next);
  return isStandfirst ? [next] : [];
}

function isSentence(element: PageElement): boolean {
  const text = tidy(textContent(element));
  return (
    text.length > MIN_BEHIND && text.length < 600 && linkLength(element) < 0.2 * text.length && saysSomething(text)
  );
}

/** Right behind a headline less is enough to be a standfirst. */
const MIN_BEHIND = 35;

function holds(element: PageElement, tagName: string): boolean {
  return findElement(element, (each) => each.tagName === tagName) !== undefined;
}

function isPicture(element: PageElement): boolean {
  return (
    /^(?:figure|img|picture)$/.test(element.tagName) ||
    (holds(element, 'img') && tidy(textContent(element)).length < 200)
  );
}

/** The parts of an element between headline and text that belong to the text: pictures and standfirsts, no labels. */
function preludeIn(element: PageElement): PageElement[] {
  if (/^(?:figure|img|picture)$/.test(element.tagName)) return [element];
  if (isPicture(element)) {
    // The box of a picture and its caption stays whole; of a banner with its labels only the picture is wanted.
    const isOwnBox = NAMED_AS_PICTURE.test(label(element)) && linkLength(element) === 0;
    return isOwnBox ? [element] : elementsIn(element).flatMap(preludeIn);
  }
  const text = tidy(textContent(element));
  if (text.length <= MIN_STANDFIRST) return [];
  const holdsBlocks = elementsIn(element).some((each) => /^(?:p|h[2-4]|div|section|ul|ol|header)$/.test(each.tagName));
  if (/^(?:div|section|header)$/.test(element.tagName) && holdsBlocks) return elementsIn(element).flatMap(preludeIn);
  return /^(?:p|h[2-4]|div|section)$/.test(element.tagName) &&
    text.length < 600 &&
    linkLength(element) < 0.2 * text.length &&
    saysSomething(text)
    ? [element]
    : [];
}

const NAMED_AS_PICTURE = /image|img|photo|picture|foto|figure|media|caption|hero|visual|lead/;
const MIN_STANDFIRST = 50;
/** In a sentence most words begin small; in rows of labels and names they do not. Common practice. */
const MIN_SMALL = 0.5;

function saysSomething(text: string): boolean {
  if (isPreambleLine(text) || isLineOfClutter(text)) return false;
  const words = text.match(/\p{L}[\p{L}\p{M}'’-]*/gu) ?? [];
  const cased = words.filter((word) => word.toLowerCase() !== word.toUpperCase());
  if (cased.length < 0.5 * words.length) return /[。！？؟،.]/u.test(text);
  const small = cased.filter((word) => /^\p{Ll}/u.test(word)).length;
  return small >= MIN_SMALL * cased.length && cased.length >= 8;
}

const NAMED_AS_TEXT = /(?:^|[\s_-])(?:articlebody|article|body|content|entry|story|post|text|prose|main)(?:$|[\s_-])/i;
