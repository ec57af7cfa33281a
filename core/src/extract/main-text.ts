import {
  attribute,
  descendants,
  elementsIn,
  isText,
  label,
  textOf,
  tidy,
  type PageElement,
} from './page-tree';
import { linkLength } from './clutter';

/**
 * Finds the element that holds the text.
 *
 * Every block with prose in it has a *mass*: its length, less what is links, more for sentence punctuation.
 * Mass adds up towards the root. From the best semantic start (`article`, `main`, `itemprop=articleBody`,
 * else `body`) we go down as long as one child holds nearly all of its parent's mass: where the mass spreads
 * over several children, those are the paragraphs, and their parent is the text.
 */
export function findMainText(body: PageElement): PageElement {
  const mass = massOf(body);
  const total = mass.get(body) ?? 0;
  let at = semanticStart(body, mass, total) ?? body;
  for (;;) {
    const here = mass.get(at) ?? 0;
    const heaviest = elementsIn(at).reduce<PageElement | undefined>(
      (best, child) => ((mass.get(child) ?? 0) > (best ? (mass.get(best) ?? 0) : 0) ? child : best),
      undefined,
    );
    if (!heaviest || (LEAF.test(heaviest.tagName) && !TABLE_PART.test(heaviest.tagName)))
      return outOfTable(at);
    const share = (mass.get(heaviest) ?? 0) / Math.max(1, here);
    const named =
      NAMED_AS_TEXT.test(`${label(heaviest)} ${attribute(heaviest, 'itemprop') ?? ''}`) ||
      /^(?:article|main)$/.test(heaviest.tagName);
    if (share < (named ? 0.7 : 0.88)) return outOfTable(at);
    at = heaviest;
  }
}

const LEAF = /^(?:p|pre|blockquote|table|tbody|tr|ul|ol|dl|li|figure|h[1-6])$/;
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
    prelude.unshift(...before.slice(headline + 1).filter(isPrelude));
    const inside = headline === -1 ? undefined : before[headline];
    if (inside && inside.tagName !== 'h1')
      prelude.unshift(
        ...[...descendants(inside)]
          .filter(
            (each) => each.tagName === 'figure' || /standfirst|lead|dek|subtitle|summary/.test(label(each)),
          )
          .filter(isPrelude),
      );
    if (headline !== -1) {
      // A picture above the headline, in the same box, is the lead picture too.
      prelude.unshift(...before.slice(0, headline).filter((each) => isPrelude(each) && isPicture(each)));
      return prelude;
    }
    if (/^(?:body|main)$/.test(parent.tagName)) return prelude.filter(isPicture).slice(0, 1);
    at = parent;
  }
}

function holds(element: PageElement, tagName: string): boolean {
  for (const each of descendants(element)) if (each.tagName === tagName) return true;
  return false;
}

function isPicture(element: PageElement): boolean {
  return (
    /^(?:figure|img|picture)$/.test(element.tagName) ||
    (holds(element, 'img') && tidy(textOf(element)).length < 200)
  );
}

function isPrelude(element: PageElement): boolean {
  if (isPicture(element)) return true;
  const text = tidy(textOf(element));
  return (
    /^(?:p|h2|div|section)$/.test(element.tagName) &&
    text.length > 50 &&
    text.length < 600 &&
    linkLength(element) < 0.2 * text.length
  );
}

const NAMED_AS_TEXT =
  /(?:^|[\s_-])(?:articlebody|article|body|content|entry|story|post|text|prose|main)(?:$|[\s_-])/i;

function massOf(root: PageElement): Map<PageElement, number> {
  const mass = new Map<PageElement, number>();
  const visit = (element: PageElement): number => {
    let sum = 0;
    if (LEAF.test(element.tagName) && !/^(?:table|tbody|tr|ul|ol|dl|figure)$/.test(element.tagName)) {
      sum = proseMass(tidy(textOf(element)), linkLength(element));
      if (/^(?:li|blockquote)$/.test(element.tagName)) for (const child of elementsIn(element)) visit(child);
    } else {
      const direct = tidy(
        element.childNodes.map((node) => (isText(node) || isPhrase(node) ? textOf(node) : ' ')).join(''),
      );
      const hasBlocks = elementsIn(element).some((child) => !PHRASES.has(child.tagName));
      sum = direct.length > (hasBlocks ? 80 : 0) ? proseMass(direct, hasBlocks ? 0 : linkLength(element)) : 0;
      for (const child of elementsIn(element)) if (!PHRASES.has(child.tagName)) sum += visit(child);
    }
    mass.set(element, sum);
    return sum;
  };
  visit(root);
  return mass;
}

const PHRASES = new Set(
  'a abbr b bdi bdo br cite code data del dfn em font i img ins kbd mark q rp rt ruby s samp small span strong sub sup time u var wbr'.split(
    ' ',
  ),
);

function isPhrase(node: unknown): boolean {
  return (
    typeof node === 'object' &&
    node !== null &&
    'tagName' in node &&
    PHRASES.has(String(node.tagName)) &&
    node.tagName !== 'a'
  );
}

const SENTENCE_MARKS = /[.!?;:,،。、！？؟«»“”]/g;

function proseMass(text: string, links: number): number {
  if (text.length < 20) return 0;
  const linkShare = Math.min(1, links / text.length);
  const marks = (text.match(SENTENCE_MARKS)?.length ?? 0) / text.length;
  const punctuation = marks > 0.005 ? 1 : 0.4;
  return text.length * (1 - linkShare) ** 2 * punctuation;
}

/** The page's own word for where its text is, believed when it holds most of the mass. */
function semanticStart(
  body: PageElement,
  mass: Map<PageElement, number>,
  total: number,
): PageElement | undefined {
  const claims = [...descendants(body)].filter(
    (element) =>
      /\barticleBody\b/i.test(attribute(element, 'itemprop') ?? '') ||
      element.tagName === 'article' ||
      element.tagName === 'main' ||
      attribute(element, 'role') === 'main',
  );
  // One element that schema.org's own property names is taken at its word, if it holds more than a teaser.
  const named = claims.filter((element) => /\barticleBody\b/i.test(attribute(element, 'itemprop') ?? ''));
  const [only] = named;
  if (only && named.length === 1 && (mass.get(only) ?? 0) > 800) return only;
  const believed = claims.filter((element) => (mass.get(element) ?? 0) > 0.5 * total);
  return believed.sort((a, b) => (mass.get(a) ?? 0) - (mass.get(b) ?? 0))[0];
}
