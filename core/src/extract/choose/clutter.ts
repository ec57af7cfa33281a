import { measure } from '../page/measure';
import {
  attribute,
  elementsIn,
  isElement,
  label,
  labelApart,
  type PageElement,
  type PageNode,
  remove,
  startOfText,
  textContent,
  tidy,
} from '../page/page-tree';

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
    'comment|comments|commentlist|comment-list|commentaire|commentaires|kommentar|kommentare|comentario|comentarios|respond|replies|disqus|discussion|reactions|reacties|' +
    'share|sharing|sharebar|social|socials|follow|' +
    'related|recommended|recommendations|recirc|more-from|read-more|readmore|readnext|read-next|also|popular|trending|most-read|latest|teasers|teaser|' +
    'newsletter|signup|sign-up|subscribe|subscription|subscriber|mailing|paywall|regwall|offer|donate|donation|' +
    'cookie|cookies|consent|gdpr|cmp|' +
    'nav|navbar|navigation|menu|breadcrumb|breadcrumbs|crumb|crumbs|pagination|pager|pagenav|toolbar|tools|masthead|' +
    'sidebar|side|aside|rail|right-?bar|left-?bar|right-?rail|left-?rail|right-?col|left-?col|right-?column|left-?column|col-right|col-left|column-right|widget|widgets|footer|colophon|header-bar|topbar|site-header|site-footer|' +
    'popup|modal|overlay|toast|skip|skiplink|sr-only|visually-hidden|screen-reader-text|noprint|no-print|' +
    'author-bio|author-card|author-box|authorbox|about-author|bio|byline|dateline|' +
    'tags|taglist|tag-list|categories|toc|table-of-contents|editsection|mw-editsection|ambox|hatnote|permalink-icon|headerlink|jump|print|rating|ratings|vote|votes|votecell|vote-count|votecount|poll|quiz|player',
);
/** What has prose of its own that is not the page's: readers', or other articles'. */
const BESIDE = word(
  'comment|comments|commentlist|comment-list|commentaire|commentaires|kommentar|kommentare|comentario|comentarios|reactions|reacties|replies|respond|disqus|sidebar|aside|rail|right-?bar|right-?rail|right-?col|right-?column|live-flux|ticker',
);
const MAYBE_TEXT = word('article|body|content|entry|main|story|post|text|page|column|prose|chapter|hentry');

const HIDDEN_STYLE = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)/i;

/** Names of what holds the paragraphs. */
const NAMED_AS_BODY =
  /(?:^|[\s_-])(?:article|story|post|entry|content|blog|news|main)[-_]*(?:body|content|text|copy)|(?:^|[\s_-])(?:body[-_]?(?:text|copy|content)|prose|hentry|article[-_]?main)/i;

/** True for an element whose name or property says that it holds the paragraphs of a text. */
export function isNamedAsBody(element: PageElement): boolean {
  return NAMED_AS_BODY.test(label(element)) || /\barticleBody\b/i.test(attribute(element, 'itemprop') ?? '');
}

const MAX_BODIES = 20;

/** What stands in an element that a page names as its text: this much is enough to believe it. */
const ENOUGH_IN_BODY = 150;

/** Prose outside an element that is called a sidebar or comments: as much as this, and the element is what it says. */
const ENOUGH_ELSEWHERE = 400;

/** Whether names and roles are believed, or only what can never be text is taken away. */
export type Trust = 'by all evidence' | 'by the surest evidence';

/**
 * Takes out of a page what stands around the text, before the text is looked for.
 *
 * Evidence that could err (class names, roles, `header`, `aside`) is overruled when the element holds a large
 * part of the page's prose: a site may well call its article column "side" or wrap all in one form.
 */
export function removeSurroundings(root: PageElement, trust: Trust): void {
  const measures = measure(root);
  const bodies = [...measures]
    .filter(([element, { prose }]) => prose >= ENOUGH_IN_BODY && isNamedAsBody(element))
    .map(([element]) => element)
    // They come from the inside out; a few of them are evidence enough.
    .slice(-MAX_BODIES);
  const proseOf = (element: PageElement) => measures.get(element)?.prose ?? 0;
  const all = proseOf(root);
  const sweep = (element: PageElement) => {
    /** What was kept last, and the prose of what was kept before that. */
    let before: PageElement | undefined;
    let above = 0;
    const gone = new Set<PageNode>();
    for (const child of elementsIn(element)) {
      const own = proseOf(child);
      // Readers' comments, and tickers at the side, often outweigh the article; they are only taken for the text when
      // hardly anything else is there.
      const beside = child.tagName === 'aside' || BESIDE.test(names(child));
      const textIsElsewhere =
        all - own >= Math.max(ENOUGH_ELSEWHERE, 0.15 * own) || bodies.some((body) => !contains(child, body));
      const holdsTheText = own > 0.4 * all && !(beside && textIsElsewhere);
      if (trust === 'by all evidence' ? isSurrounding(child, holdsTheText, own) : isNeverText(child)) {
        const isComments = trust === 'by all evidence' && COMMENTS.test(names(child));
        if (before && isComments && saysRules(before, proseOf(before), 0.4 * all, above)) gone.add(before);
        gone.add(child);
      } else {
        above += before ? proseOf(before) : 0;
        before = child;
        sweep(child);
      }
    }
    // All at once: taking thousands of siblings out one by one would take the square of their number.
    if (gone.size > 0) element.childNodes = element.childNodes.filter((node) => !gone.has(node));
  };
  sweep(root);
}

/**
 * The box right above readers' comments, when it is small, says what may be written in them.
 *
 * @param above prose of what stands before the box, in the same parent
 */
function saysRules(box: PageElement, prose: number, most: number, above: number): boolean {
  if (box.tagName !== 'div' || prose >= Math.min(most, 0.5 * above)) return false;
  const length = startOfText(box, MAX_RULES_LENGTH).length;
  return length > 0 && length < MAX_RULES_LENGTH && linkLength(box) < 0.3 * length;
}

const MAX_RULES_LENGTH = 600;

/** Class and id without what only says in which state an element is, such as `has-sidebar`. */
function names(element: PageElement): string {
  const [plain, apart] = [label(element), labelApart(element)];
  return (plain === apart ? plain : `${plain} ${apart}`).replace(/(?:^|\s)(?:has|with|without|no|not|is)[-_]\S+/g, ' ');
}

function contains(outer: PageElement, inner: PageElement): boolean {
  for (let at: PageElement['parentNode'] = inner; at; at = 'parentNode' in at ? at.parentNode : null)
    if (at === outer) return true;
  return false;
}

/** True for the head of an article that has a sentence or two about it. */
function holdsStandfirst(header: PageElement): boolean {
  const parent = header.parentNode;
  if (!parent || !isElement(parent) || parent.tagName === 'body') return false;
  return elementsIn(header).some((child) => {
    const length = tidy(textContent(child)).length;
    return /^(?:p|h2|div)$/.test(child.tagName) && length > 40 && length < 600 && linkLength(child) < 0.3 * length;
  });
}

/** What can never be the text, whatever it is called. */
function isNeverText(element: PageElement): boolean {
  return NEVER.has(element.tagName) && element.tagName !== 'noscript' && element.tagName !== 'form';
}

function isSurrounding(element: PageElement, holdsTheText: boolean, prose: number): boolean {
  const { tagName } = element;
  if (tagName === 'form' || tagName === 'fieldset') return !holdsTheText;
  if (NEVER.has(tagName)) return true;
  if (isHidden(element)) return !holdsTheText;
  if (tagName === 'math' || tagName === 'pre' || tagName === 'code') return false;
  if (holdsTheText) return false;
  if (ROLES_AROUND.has((attribute(element, 'role') ?? '').toLowerCase())) return true;
  if (tagName === 'footer' || tagName === 'aside') return !isQuoteOrNote(element);
  // A headline's box often holds the standfirst too.
  if (tagName === 'header') return !holdsStandfirst(element);
  if (tagName === 'body' || tagName === 'article' || tagName === 'main') return false;
  const named = names(element);
  if (named && (COMMENTS.test(named) || ALWAYS_AROUND.test(named)) && !BODY_TAGS.test(tagName)) return true;
  if (named && AROUND.test(named) && !(MAYBE_TEXT.test(label(element)) && prose > 300)) {
    return (
      !/^(?:h[1-6]|p|blockquote|figure|figcaption|table|img|em|strong|b|i|sup|sub)$/.test(tagName) ||
      AROUND_LINE.test(named)
    );
  }
  return false;
}

const BODY_TAGS = /^(?:h[1-6]|p|blockquote|figure|figcaption|img|em|strong|b|i|sup|sub|a|span)$/;
const COMMENTS = word(
  'comment|comments|commentlist|comment-list|commentaire|commentaires|kommentar|kommentare|comentario|comentarios|replies|disqus',
);
/** Beginnings of names that never mean the text, whatever else the name says. */
const ALWAYS_AROUND =
  /(?:^|[\s_-])(?:related|recommend|newsletter|sponsor|breadcrumb|pagination|outbrain|taboola|moreon|morestories|more-stories|read-?more)/;

/** A class that condemns even a single paragraph. */
const AROUND_LINE = word(
  'ad|ads|advert|advertisement|promo|sponsored|share|related|newsletter|subscribe|cookie|sr-only|visually-hidden|read-more|readmore|byline|dateline|noprint|tags|breadcrumb|breadcrumbs|toc|editsection|mw-editsection|ambox|hatnote',
);

/** True for what a page holds but does not show. */
export function isHidden(element: PageElement): boolean {
  if (attribute(element, 'hidden') !== undefined) return true;
  if (HIDDEN_STYLE.test(attribute(element, 'style') ?? '')) return true;
  return attribute(element, 'aria-hidden') === 'true' && element.tagName !== 'img' && !element.tagName.startsWith('m');
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

export function linkLength(element: PageElement): number {
  let sum = 0;
  for (const child of elementsIn(element)) {
    sum += child.tagName === 'a' ? tidy(textContent(child)).length : linkLength(child);
  }
  return sum;
}

/**
 * Takes out of the chosen element what stands between the paragraphs and is not part of the text: boxes of links, rows of
 * teasers. Nothing that holds much of the text is touched.
 */
export function cleanInside(main: PageElement): void {
  const measures = measure(main);
  const all = measures.get(main)?.prose ?? 0;
  const sweep = (element: PageElement) => {
    for (const child of elementsIn(element)) {
      if (!BOXES.test(child.tagName)) {
        if (!WHOLE.test(child.tagName)) sweep(child);
        continue;
      }
      const { prose, visible } = measures.get(child) ?? { prose: 0, visible: 0 };
      if (holdsNotes(child)) continue;
      if (prose <= 0.3 * all && (isLinkBox(child, prose, visible) || isTeaserRow(child))) remove(child);
      else sweep(child);
    }
  };
  sweep(main);
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

/** Three or more boxes of one make, each led by a link and short: headlines of other articles. */
function isTeaserRow(element: PageElement): boolean {
  const makes = new Map<string, PageElement[]>();
  for (const child of elementsIn(element)) {
    if (!/^(?:li|div|article|section|td|dd|tr)$/.test(child.tagName)) return false;
    const make = `${child.tagName} ${attribute(child, 'class') ?? ''}`;
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

function firstLink(element: PageElement): string | undefined {
  for (const child of elementsIn(element)) {
    const text = child.tagName === 'a' ? tidy(textContent(child)) : firstLink(child);
    if (text) return text;
  }
  return undefined;
}
