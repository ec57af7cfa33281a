import { attribute, elementsIn, isElement, label, remove, textOf, tidy, type PageElement } from './page-tree';

/** Never part of a text. */
const NEVER = new Set(
  (
    'script style link meta template iframe object embed applet form input select textarea button dialog nav ' +
    'canvas audio video map area noscript svg frame frameset base menu fieldset'
  ).split(' '),
);

/** Roles (WAI-ARIA 1.2) of what stands around a text. */
const ROLES_AROUND = new Set(
  'navigation banner contentinfo complementary search dialog alertdialog alert menu menubar toolbar tablist form'.split(
    ' ',
  ),
);

const word = (words: string) => new RegExp(`(?:^|[\\s_-])(?:${words})(?:$|[\\s_-])`);

/** Words in class and id, common practice, that tell what stands around a text. */
const AROUND = word(
  'ad|ads|adv|advert|advertisement|advertising|adslot|adbox|promo|promotion|promoted|sponsor|sponsored|sponsors|' +
    'comment|comments|respond|replies|disqus|discussion|' +
    'share|sharing|sharebar|social|socials|follow|' +
    'related|recommended|recommendations|recirc|more-from|read-more|readmore|readnext|read-next|also|popular|trending|most-read|latest|teasers|teaser|' +
    'newsletter|signup|sign-up|subscribe|subscription|subscriber|mailing|paywall|regwall|offer|donate|donation|' +
    'cookie|cookies|consent|gdpr|cmp|' +
    'nav|navbar|navigation|menu|breadcrumb|breadcrumbs|pagination|pager|pagenav|toolbar|tools|masthead|' +
    'sidebar|side|aside|rail|widget|widgets|footer|colophon|header-bar|topbar|site-header|site-footer|' +
    'popup|modal|overlay|toast|skip|skiplink|sr-only|visually-hidden|screen-reader-text|noprint|no-print|' +
    'author-bio|author-card|author-box|authorbox|about-author|bio|byline|dateline|' +
    'tags|taglist|tag-list|categories|jump|permalink|print|rating|ratings|vote|votes|poll|quiz|player',
);
const COMMENTS = word('comment|comments|commentlist|comment-list|replies|respond|disqus');
const MAYBE_TEXT = word('article|body|content|entry|main|story|post|text|page|column|prose|chapter|hentry');

/** Labels whose short line ends up between paragraphs: "Read more: …", "Advertisement". Matched against a whole short block. */
const LINE_OF_CLUTTER =
  /^(?:advertisements?|sponsored(?: content)?|anzeige|publicité|share(?: this)?(?: article| story| page)?|read (?:more|next|also)\b.{0,120}|related(?: articles| stories)?:?.{0,120}|see also:.{0,120}|continue reading.{0,80}|story continues below.{0,60}|sign up (?:for|to) .{0,120}|subscribe (?:to|now|today).{0,120}|follow us on .{0,100}|print this page|back to top|skip to (?:main )?content|loading\s?…?\.{0,3}|click to enlarge)$/i;

const HIDDEN_STYLE = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)/i;

/**
 * Takes out of a page what stands around the text, before the text is looked for.
 *
 * Evidence that could err (class names, roles, `header`, `aside`) is overruled when the element holds a large
 * part of the page's paragraphs: a site may well call its article column "side" or wrap all in one form.
 */
export function removeSurroundings(root: PageElement): void {
  const all = paragraphLength(root);
  const sweep = (element: PageElement) => {
    for (const child of elementsIn(element)) {
      const mass = paragraphLength(child);
      // Readers' comments often outweigh the article; they are only taken for the text when hardly anything else is there.
      const share = COMMENTS.test(label(child)) ? 0.85 : 0.4;
      const holdsTheText = all > 0 && mass > share * all;
      if (isSurrounding(child, holdsTheText)) remove(child);
      else sweep(child);
    }
  };
  sweep(root);
}

function isSurrounding(element: PageElement, holdsTheText: boolean): boolean {
  const { tagName } = element;
  if (tagName === 'form' || tagName === 'fieldset') return !holdsTheText;
  if (NEVER.has(tagName)) return true;
  if (isHidden(element)) return !holdsTheText;
  if (tagName === 'math' || tagName === 'pre' || tagName === 'code') return false;
  if (holdsTheText) return false;
  if (ROLES_AROUND.has((attribute(element, 'role') ?? '').toLowerCase())) return true;
  if (tagName === 'footer' || tagName === 'aside') return !isQuoteOrNote(element);
  if (tagName === 'header') return true;
  if (tagName === 'body' || tagName === 'article' || tagName === 'main') return false;
  const named = label(element);
  if (named && AROUND.test(named) && !(MAYBE_TEXT.test(named) && paragraphLength(element) > 400)) {
    return (
      !/^(?:h[1-6]|p|blockquote|figure|figcaption|table|img|em|strong|b|i|sup|sub)$/.test(tagName) ||
      AROUND_LINE.test(named)
    );
  }
  return false;
}

/** A class that condemns even a single paragraph. */
const AROUND_LINE = word(
  'ad|ads|advert|advertisement|promo|sponsored|share|related|newsletter|subscribe|cookie|sr-only|visually-hidden|read-more|readmore|byline|dateline|noprint|tags|breadcrumb|breadcrumbs',
);

function isHidden(element: PageElement): boolean {
  if (attribute(element, 'hidden') !== undefined) return true;
  if (HIDDEN_STYLE.test(attribute(element, 'style') ?? '')) return true;
  return (
    attribute(element, 'aria-hidden') === 'true' &&
    element.tagName !== 'img' &&
    !element.tagName.startsWith('m')
  );
}

/** Footnotes and pull-quotes are written into `footer` and `aside` too. */
function isQuoteOrNote(element: PageElement): boolean {
  if (
    /note|endnote/.test(
      `${label(element)} ${attribute(element, 'role') ?? ''} ${attribute(element, 'epub:type') ?? ''}`,
    )
  ) {
    return !/(?:side|banner)/.test(label(element));
  }
  const parent = element.parentNode;
  return element.tagName === 'footer' && !!parent && isElement(parent) && parent.tagName === 'blockquote';
}

/** Length of the text that stands in paragraphs and the like, the links left out. */
function paragraphLength(element: PageElement): number {
  const known = lengths.get(element);
  if (known !== undefined) return known;
  let sum = 0;
  for (const child of elementsIn(element)) {
    if (/^(?:p|pre|blockquote|li|td|dd)$/.test(child.tagName))
      sum += Math.max(0, tidy(textOf(child)).length - 2 * linkLength(child));
    else sum += paragraphLength(child);
  }
  lengths.set(element, sum);
  return sum;
}

/** Computed once an element: the removal of surroundings only ever makes the truth smaller, never larger. */
const lengths = new WeakMap<PageElement, number>();

export function linkLength(element: PageElement): number {
  let sum = 0;
  for (const child of elementsIn(element)) {
    sum += child.tagName === 'a' ? tidy(textOf(child)).length : linkLength(child);
  }
  return sum;
}

/** True for a short block that is a label of the page and not a sentence of the text. */
export function isLineOfClutter(text: string): boolean {
  return text.length < 160 && LINE_OF_CLUTTER.test(text);
}
