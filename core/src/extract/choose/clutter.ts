import { measure } from '../page/measure';
import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  isElement,
  isLink,
  label,
  labelApart,
  type PageElement,
  type PageNode,
  startOfText,
  textContent,
  tidy,
} from '../page/page-tree';
import { Cuts } from './cuts';

/** Never part of a text. */
const NEVER = new Set(
  (
    'script style link meta template iframe object embed applet form input select textarea button dialog nav ' +
    'canvas audio video map area noscript svg frame frameset base menu fieldset ' +
    'amp-ad amp-auto-ads amp-embed amp-sticky-ad amp-list amp-sidebar amp-consent amp-user-notification amp-social-share'
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
    'sidebar|side|aside|rail|(?:right|left)[-_]?(?:bar|rail|col|column)|col-right|col-left|column-right|widget|widgets|footer|colophon|header-bar|topbar|site-header|site-footer|' +
    'popup|modal|overlay|toast|skip|skiplink|sr-only|visually-hidden|screen-reader-text|noprint|no-print|' +
    'author-bio|author-card|author-box|authorbox|about-author|bio|byline|dateline|' +
    'reviews|tags|taglist|tag-list|categories|toc|table-of-contents|editsection|mw-editsection|ambox|hatnote|site-?notice|permalink-icon|headerlink|jump|print|rating|ratings|vote|votes|votecell|vote-count|votecount|poll|quiz|player',
);
/** What has prose of its own that is not the page's: readers', or other articles'. */
const BESIDE = word(
  'comment|comments|commentlist|comment-list|commentaire|commentaires|kommentar|kommentare|comentario|comentarios|reactions|reacties|replies|respond|disqus|sidebar|aside|rail|right[-_]?(?:bar|rail|col|column)|site-footer|reviews|live-flux|ticker',
);
const MAYBE_TEXT = word('article|body|content|entry|main|story|post|text|page|column|prose|chapter|hentry');

const HIDDEN_STYLE = /(?:^|;)\s*(?:display\s*:\s*none|visibility\s*:\s*hidden)/i;

/** Names of what holds the paragraphs. */
const NAMED_AS_BODY =
  /(?:^|[\s_-])(?:article|story|post|entry|content|blog|news|main)[-_]*(?:body|content|text|copy)|(?:^|[\s_-])(?:body[-_]?(?:text|copy|content)|prose|hentry|article[-_]?main)/i;

/** True for an element whose name or property says that it holds the paragraphs of a text. */
export function isNamedAsBody(element: PageElement): boolean {
  const named = label(element);
  const property = attribute(element, 'itemprop');
  return (named !== '' && NAMED_AS_BODY.test(named)) || (property !== undefined && /\barticleBody\b/i.test(property));
}

const MAX_BODIES = 20;

/** What stands in an element that a page names as its text: this much is enough to believe it. */
const ENOUGH_IN_BODY = 150;

/** Prose outside an element that is called a sidebar or comments: as much as this, and the element is what it says. */
const ENOUGH_ELSEWHERE = 400;

/** What class, id and role of an element say that it is; several may be said at once. */
export interface NameEvidence {
  around: boolean;
  beside: boolean;
  comments: boolean;
  never: boolean;
  text: boolean;
  body: boolean;
  /** Named as a part of a text that is made of short lines: ingredients, steps, code. */
  parts: boolean;
  role: boolean;
  hidden: boolean;
}

const PARTS =
  /ingredient|zutat|instruction|direction|method|preparation|(?:^|[\s_-])(?:steps?|recipe|caption|code|example|note)(?:$|[\s_-])/;

const EVIDENCE = new WeakMap<PageElement, NameEvidence>();

/** What is known of an element that is called nothing: most of a page are such. */
export const NO_EVIDENCE: NameEvidence = {
  ...{ around: false, beside: false, comments: false, never: false, text: false, parts: false },
  ...{ body: false, hidden: false, role: false },
};

export function evidenceOfName(element: PageElement): NameEvidence {
  const isAside = element.tagName === 'aside' || element.tagName === 'footer';
  if (!isAside && element.attrs.length === 0) return NO_EVIDENCE;
  let known = EVIDENCE.get(element);
  if (!known) {
    const said = saidBy(names(element));
    const [beside, body, hidden] = [isAside || said.beside, isNamedAsBody(element), isHidden(element)];
    const role = ROLES_AROUND.has((attribute(element, 'role') ?? '').toLowerCase());
    known =
      said === UNNAMED && !beside && !body && !hidden && !role ? NO_EVIDENCE : { ...said, beside, body, hidden, role };
    EVIDENCE.set(element, known);
  }
  return known;
}

type Said = Pick<NameEvidence, 'around' | 'beside' | 'comments' | 'never' | 'text' | 'parts'>;

function says(named: string): Said {
  const said = {
    around: AROUND.test(named),
    beside: BESIDE.test(named),
    comments: COMMENTS.test(named),
    never: ALWAYS_AROUND.test(named),
    text: MAYBE_TEXT.test(named),
    parts: PARTS.test(named),
  };
  return Object.values(said).includes(true) ? said : UNNAMED;
}

/** A page names its elements alike, so most names have been looked at before. */
const SAID = new Map<string, Said>();
const MOST_SAID = 2000;
const UNNAMED: Said = NO_EVIDENCE;

function saidBy(named: string): Said {
  if (named === '') return UNNAMED;
  let said = SAID.get(named);
  if (!said) {
    if (SAID.size >= MOST_SAID) SAID.clear();
    said = says(named);
    SAID.set(named, said);
  }
  return said;
}

/** Whether names and roles are believed, or only what can never be text is taken away. */
export type Trust = 'by all evidence' | 'by the surest evidence';

/**
 * Takes out of a page what stands around the text, before the text is looked for.
 *
 * Evidence that could err (class names, roles, `header`, `aside`) is overruled when the element holds a large
 * part of the page's prose: a site may well call its article column "side" or wrap all in one form.
 */
export function removeSurroundings(root: PageElement, trust: Trust, cuts = new Cuts()): void {
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
      const beside = evidenceOfName(child).beside;
      const textIsElsewhere =
        all - own >= Math.max(ENOUGH_ELSEWHERE, 0.15 * own) || bodies.some((body) => !contains(child, body));
      const holdsTheText = own > 0.4 * all && !(beside && textIsElsewhere);
      if (trust === 'by all evidence' ? isSurrounding(child, holdsTheText, own) : isNeverText(child)) {
        const isComments = trust === 'by all evidence' && evidenceOfName(child).comments;
        if (before && isComments && saysRules(before, proseOf(before), 0.4 * all, above)) gone.add(before);
        gone.add(child);
      } else {
        above += before ? proseOf(before) : 0;
        before = child;
        // Code is full of names of its own.
        if (child.tagName !== 'pre' && child.tagName !== 'code') sweep(child);
      }
    }
    cuts.take(element, gone, 'around');
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

const NAMES = new WeakMap<PageElement, string>();

/**
 * Class and id without what only says in which state an element is, such as `has-sidebar`, and without an id that is made of
 * the words of a heading: "Errors related to imports" is no box of related articles.
 */
function names(element: PageElement): string {
  let known = NAMES.get(element);
  if (known === undefined) {
    const [plain, apart] = [label(element), labelApart(element)];
    known = (plain === apart ? plain : `${plain} ${apart}`).replace(STATES, ' ');
    const id = known === ' ' ? undefined : attribute(element, 'id')?.toLowerCase();
    if (id !== undefined && isSlugOfHeading(id, element)) known = ` ${known} `.replaceAll(` ${id} `, ' ');
    NAMES.set(element, known);
  }
  return known;
}

const STATES = /(?:^|\s)(?:has|with|without|no|not|is)[-_]\S+|--(?:promoted|sticky|latest|popular|sponsored)\b/g;
/** An id of fewer words may well say what its element is. */
const MIN_SLUG_WORDS = 3;

function isSlugOfHeading(id: string, element: PageElement): boolean {
  const parts = id.split(/[-_.]+/).filter((part) => part !== '');
  if (parts.length < MIN_SLUG_WORDS) return false;
  const isHeading = (each: PageElement) => /^h[1-6]$/.test(each.tagName);
  const [first, second] = elementsIn(element);
  const heading = [element, first, second, first && elementsIn(first)[0]].find((each) => each && isHeading(each));
  if (!heading) return false;
  const words = startOfText(heading, 300)
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u);
  return parts.filter((part) => words.includes(part)).length > 0.6 * parts.length;
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
export function isNeverText(element: PageElement): boolean {
  return NEVER.has(element.tagName) && element.tagName !== 'noscript' && element.tagName !== 'form';
}

function isSurrounding(element: PageElement, holdsTheText: boolean, prose: number): boolean {
  const { tagName } = element;
  if (tagName === 'form' || tagName === 'fieldset') return !holdsTheText || asksToSignIn(element, prose);
  if (NEVER.has(tagName)) return true;
  if (isHidden(element)) return !holdsTheText;
  if (tagName === 'math' || tagName === 'pre' || tagName === 'code') return false;
  if (holdsTheText) return false;
  if (ROLES_AROUND.has((attribute(element, 'role') ?? '').toLowerCase())) return true;
  if (tagName === 'footer' || tagName === 'aside') return !isQuoteOrNote(element) && !standsInText(element, prose);
  // A headline's box often holds the standfirst too.
  if (tagName === 'header') return !holdsStandfirst(element);
  if (standsInText(element, prose)) return false;
  const named = names(element);
  if (tagName === 'article') return ALWAYS_AROUND.test(named);
  if (tagName === 'body' || tagName === 'main') return false;
  if (named && (COMMENTS.test(named) || ALWAYS_AROUND.test(named)) && !BODY_TAGS.test(tagName)) return true;
  if (named && AROUND.test(named) && !mayBeText(element, named, prose)) {
    return (
      !/^(?:h[1-6]|p|blockquote|figure|figcaption|table|img|em|strong|b|i|sup|sub)$/.test(tagName) ||
      AROUND_LINE.test(named)
    );
  }
  return false;
}

/** Names of boxes that are as often a part of the text as beside it. */
const BOXED = /^(?:side|sidebar|overlay|note|box|aside|widget|offer|tools|print|player|poll)$/;
/** A sentence or two. In characters. */
const MIN_BOXED = 80;

/**
 * True for a box of sentences without a link, between paragraphs of one text: whatever it is called, it is read with them. A word that
 * speaks of something else still counts: a newsletter, other articles, what readers say.
 */
function standsInText(element: PageElement, prose: number): boolean {
  if (!/^(?:div|section|aside)$/.test(element.tagName) || prose < MIN_BOXED) return false;
  const said = names(element)
    .split(/[\s_-]+/)
    .filter((each) => AROUND.test(each));
  if ((said.length === 0 && element.tagName !== 'aside') || !said.every((each) => BOXED.test(each))) return false;
  // What is drawn out of the text is in it already.
  if (/quote|pull/.test(label(element))) return false;
  const parent = element.parentNode;
  if (!parent || !isElement(parent)) return false;
  const beside = elementsIn(parent);
  const at = beside.indexOf(element);
  const areParagraphs = [beside[at - 1], beside[at + 1]].every((each) => each?.tagName === 'p');
  return areParagraphs && linkLength(element) === 0 && !descendants(element).some(isNeverText);
}

function mayBeText(element: PageElement, named: string, prose: number): boolean {
  return prose > 300 && MAYBE_TEXT.test(label(element)) && (!BESIDE.test(named) || isNamedAsBody(element));
}

/** What is said around a password is short; a page that is wrapped in one form as a whole is not. */
const MOST_SIGN_IN = 1500;

function asksToSignIn(form: PageElement, prose: number): boolean {
  return (
    prose < MOST_SIGN_IN &&
    findElement(form, (each) => each.tagName === 'input' && attribute(each, 'type')?.toLowerCase() === 'password') !==
      undefined
  );
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
    sum += isLink(child) ? tidy(textContent(child)).length : linkLength(child);
  }
  return sum;
}
