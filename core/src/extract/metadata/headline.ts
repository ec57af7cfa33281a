import { attribute, findElement, isElement, isText, type PageElement, type PageNode, tidy } from '../page/page-tree';
import { wordsOf } from '../page/words';
import { isSiteTitle } from './site-name';

const MAX_HEADLINES = 20;
const MAX_LENGTH = 300;
/** Of lesser headings so many are looked at, and two of posts are enough to know a list of them. */
const MOST_LESSER = 60;
const MOST_POSTS = 2;

/** What may be the headline of a page, as its readers see it. */
export interface Headlines {
  /** Headings of the first rank. */
  first: string[];
  /** Lesser headings, and what is named a headline. */
  other: string[];
  /** Those that posts begin with: of a page with one post, its headline. */
  posts: string[];
}

export function headlinesOf(elements: readonly PageElement[]): Headlines {
  const of = (wanted: (e: PageElement) => boolean, most: number) =>
    elements
      .filter(wanted)
      .slice(0, most)
      .map(headingText)
      .filter((each) => each.length > 0 && each.length < MAX_LENGTH);
  const lesser = elements.filter((e) => /^h[2-4]$/.test(e.tagName)).slice(0, MOST_LESSER);
  return {
    first: of((e) => e.tagName === 'h1' && !isSiteTitle(e), MAX_HEADLINES),
    other: [
      ...of((e) => /^h[23]$/.test(e.tagName), 6),
      ...of((e) => NAMED.test(attribute(e, 'class') ?? '') && !/^(?:h[1-6]|a|meta|title)$/.test(e.tagName), 6),
    ],
    posts: [...new Set(lesser.filter(beginsPost).slice(0, MOST_POSTS).map(headingText))],
  };
}

/** What systems for blogs call a post's headline, and its box. Common practice. */
const POST_TITLE = /(?:^|[\s_-])(?:post|entry|article)[_-]?(?:title|headline)(?:$|[\s_-])/i;
const POST = /(?:^|\s)(?:hentry|h-entry|post|entry|blog-?post)(?:$|\s)/i;
const MOST_UP = 4;

/** True for a lesser heading that is named the headline of a post, or is the first in what is named a post. */
function beginsPost(element: PageElement): boolean {
  if (POST_TITLE.test(attribute(element, 'class') ?? '')) return true;
  let at = element.parentNode;
  for (let up = 0; at && isElement(at) && up < MOST_UP; at = at.parentNode, up++)
    if (at.tagName === 'article' || POST.test(attribute(at, 'class') ?? ''))
      return findElement(at, ({ tagName }) => /^h[1-6]$/.test(tagName)) === element;
  return false;
}

const NAMED = /(?:^|[\s_-])(?:headline|title)(?:$|[\s_-])/i;
/** Signs that lead to the heading itself, or to its being edited. */
const SIGN = /(?:headerlink|editsection|permalink|anchor|hash-?link|edit-?link|heading-?link|srclink|out-of-band)/i;

/** The words of a heading, without the signs of permanent links at its end. */
function headingText(heading: PageElement): string {
  let text = '';
  const walk = (node: PageNode) => {
    if (text.length > 2 * MAX_LENGTH) return;
    if (isText(node)) text += node.value;
    else if (isElement(node) && !/^(?:script|style|template|svg|noscript|button)$/.test(node.tagName)) {
      if (node !== heading && SIGN.test(attribute(node, 'class') ?? '')) return;
      for (const child of node.childNodes) walk(child);
    }
  };
  walk(heading);
  return tidy(text).replace(TRAILING_SIGNS, '');
}

/** Signs of permanent links at the end of a heading. */
export const TRAILING_SIGNS = /(?:\s*(?:[¶§🔗]|\[edit\])|\s+#)+$/u;

/** Of a heading's words so many stand in the title that it agrees with. */
const MIN_AGREEMENT = 0.6;

/**
 * The title of a page: what it states, unless a heading of the first rank agrees with that; then the heading, which is what
 * readers see.
 *
 * @param stated what the page states of its title, with or without the name of its site
 * @param pageTitle its `title`, which may say something else than what is stated for those who share the page
 */
export function titleOf(
  stated: string,
  pageTitle: string,
  { first, other, posts }: Headlines,
  siteName: string | null,
): string {
  const isSite = (text: string) => siteName !== null && same(text, siteName);
  const headings = first.filter((heading) => !isSite(heading));
  const bare = withoutSiteName(stated, siteName, [...headings, ...other]);
  const seen = headings.find((heading) => agrees(heading, bare)) ?? headings.find((heading) => agrees(heading, stated));
  if (seen !== undefined) return seen;
  // What is said to those who share the page may stand nowhere on it: then what its own title and a heading say.
  const isShown = other.some((heading) => same(heading, bare));
  const led = [...headings, ...other].find((heading) => heading.length >= MIN_LED && pageTitle.startsWith(heading));
  if (!isShown && led !== undefined) return led;
  if (!isSite(bare)) return bare;
  // A blog that has its own name in every title; a page with several posts is a list of them.
  const [post, ...more] = posts.filter((heading) => !isSite(heading));
  return headings[0] ?? (more.length === 0 ? post : undefined) ?? bare;
}

function same(a: string, b: string): boolean {
  return a.localeCompare(b, undefined, { sensitivity: 'base' }) === 0;
}

/** Shorter headings begin a title by chance. In characters. */
const MIN_LED = 16;

/** True where a heading says what a title says: the same, one within the other, or most of its words. */
function agrees(heading: string, title: string): boolean {
  const [h, t] = [wordsOf(heading), wordsOf(title)];
  if (h.length === 0 || t.length === 0) return false;
  const [plainH, plainT] = [` ${h.join(' ')} `, ` ${t.join(' ')} `];
  if (plainH === plainT) return true;
  // A word or two at the head of a title are as likely the site's name.
  if (plainT.includes(plainH))
    return (
      !isSignAtEnd(heading, title) &&
      (heading.length >= 0.5 * title.length ||
        (title.startsWith(heading) &&
          SEPARATOR.test(title.slice(heading.length)) &&
          (h.length > 2 || t.length - h.length <= MOST_OF_SITE)))
    );
  if (plainH.includes(plainT)) return t.length > 1 || h.length <= 3;
  const known = new Set(t);
  const shared = h.filter((word) => known.has(word)).length;
  return h.length > 1 && shared >= MIN_AGREEMENT * h.length && shared >= 0.4 * known.size;
}

/** "Sign in | Skerrow Parish": what stands behind a bar and is no longer than what is before it, is the site's sign. */
function isSignAtEnd(heading: string, title: string): boolean {
  if (!title.endsWith(heading) || title.length === heading.length) return false;
  const before = title.slice(0, -heading.length);
  return /(?:[|·•»—–]|\s-)\s*$/.test(before) && wordsOf(heading).length <= wordsOf(before).length;
}

/** More words than these behind a word or two are the title, and the word or two the site's sign. */
const MOST_OF_SITE = 6;
const SEPARATOR = /^\s*[|\-–—»«:·•/\\(]/;

/** "Larch or oak | The Slipway" → "Larch or oak": cut at a separator when the rest names the site or a heading confirms it. */
function withoutSiteName(title: string, siteName: string | null, headings: string[]): string {
  const clean = tidy(title);
  const confirmed = headings.find(
    (heading) =>
      (heading.length > 3 || UNSPACED.test(heading)) &&
      heading.length < clean.length &&
      // A word or two before much else is more likely the site's sign than the headline.
      (heading.split(' ').length > 2 || clean.replace(heading, '').split(/\s+/).length <= 6) &&
      (clean.startsWith(heading) || clean.endsWith(heading)),
  );
  if (confirmed) {
    const rest = clean.replace(confirmed, '');
    if (/^\s*[|\-–—»«:·•/\\]|[|\-–—»«:·•/\\]\s*$/.test(rest)) return confirmed;
  }
  const site = siteName === null ? '' : `${siteName.toLowerCase()}: `;
  if (site !== '' && clean.toLowerCase().startsWith(site) && clean.slice(site.length).includes(' '))
    return clean.slice(site.length).trimStart();
  const bracket = /\[[^\]]{2,25}\.[a-z]{2,4}\]$/i.exec(clean);
  const before = bracket ? clean.slice(0, bracket.index).trimEnd() : '';
  if (before.length >= 8) return before;
  const parts = clean.split(/\s+[|–—»«·•]\s+|\s+[-/]\s+/);
  if (parts.length < 2) return clean;
  const last = parts.at(-1) ?? '';
  const first = parts[0] ?? '';
  const withoutLast = () => clean.slice(0, clean.lastIndexOf(last)).replace(/[\s|\-–—»«·•/]+$/, '');
  if (OF_A_GENERATOR.test(last)) return withoutLast();
  if (siteName && (same(last, siteName) || isOfSite(last, siteName))) return withoutLast();
  if (siteName && same(first, siteName)) return clean.slice(first.length).replace(/^[\s|\-–—»«·•/]+/, '');
  const hard = clean.split(/\s+[|»]\s+/);
  const main = hard[0] ?? '';
  return hard.length > 1 && main.split(' ').length >= 3 ? main : clean;
}

const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u;
/** What generators of manuals put behind every title. Common practice. */
const OF_A_GENERATOR = /\b(?:documentation|docs|manual)$/i;

/** "COURIER NewsFeed" belongs to "Courier.com": a few words, the first of them the site's. */
function isOfSite(part: string, siteName: string): boolean {
  const plain = (value: string) =>
    value
      .toLowerCase()
      .replace(/^(?:the|www\.)\s*|\.(?:com|org|net)\b/g, '')
      .trim();
  const first = plain(siteName).split(/\s+/)[0] ?? '';
  const words = plain(part).split(/\s+/);
  return words.length <= 4 && first.length > 2 && words[0]?.replace(/[^\p{L}\p{N}]+$/u, '') === first;
}

const AROUND_A_SEPARATOR = /^[\s|\-–—»«:·•/\\]+|[\s|\-–—»«:·•/\\]+$/g;

/**
 * The parts of a page's title that may be the name of its site: "Larch or oak | The Slipway" under the headline "Larch or oak",
 * or "The Slipway: Larch or oak". Where no heading says which part is which, the last and the first, in this order.
 */
export function siteNamesInTitle(title: string, { first, other }: Headlines): string[] {
  const headline = [...first, ...other].find(
    (heading) =>
      heading.length > 1 &&
      heading !== title &&
      !isSignAtEnd(heading, title) &&
      (title.startsWith(heading) || title.endsWith(heading)),
  );
  if (headline !== undefined) {
    const rest = title.startsWith(headline) ? title.slice(headline.length) : title.slice(0, -headline.length);
    if (!SEPARATOR.test(rest) && !ENDS_SEPARATED.test(rest)) return [];
    const behindNames = rest.replace(/^\s*[|\-–—]\s*(?:by|von|par|por|di)\s[^|\-–—]{2,60}(?=[|\-–—])/i, '');
    return namesIn(behindNames.split(/\s*[|»·•]\s*/).at(-1) ?? '');
  }
  const parts = title.split(/\s+[|–—»«·•]\s+|\s+(?:--?|\/)\s+/u);
  return parts.length < 2 ? [] : [parts.at(-1) ?? '', parts[0] ?? ''].flatMap(namesIn);
}

/** What stands before a colon: the site's name, or what kind of text it is ("Interview: …"); others must bear it out. */
export function nameBeforeColon(title: string): string | null {
  return /^([\p{L}\d ]{2,30}):\s/u.exec(title)?.[1] ?? null;
}

const ENDS_SEPARATED = /[|\-–—»«:·•/\\]\s*$/;

function namesIn(text: string): string[] {
  const name = text.replace(AROUND_A_SEPARATOR, '');
  return name.length > 1 && name.length <= 45 ? [name] : [];
}
