import { z } from 'zod';
import { dateIn, dateInAddress, findVisibleDate } from './visible-date';
import {
  attribute,
  descendants,
  findElement,
  isText,
  label,
  startOfText,
  textOf,
  tidy,
  type PageDocument,
  type PageElement,
} from './page-tree';

/** What a page states about itself. Null where it states nothing. */
export interface Metadata {
  title: string | null;
  byline: string | null;
  siteName: string | null;
  /** ISO 8601; the zone is kept when the page states one. */
  publishedAt: string | null;
  /** As declared, not yet checked against the text. */
  language: string | null;
  description: string | null;
  leadImageUrl: string | null;
  /** Absolute, http or https. */
  canonicalUrl: string | null;
  /** The text as the page states it beside its markup (schema.org articleBody); it may be markup itself. */
  articleBody: string | null;
  /** The number of words that the page itself claims, if it does. */
  statedWordCount: number | null;
  /** False when the page says that its text is not free to read (schema.org isAccessibleForFree). */
  accessibleForFree: boolean;
}

/**
 * Reads a page's metadata. Order of trust: JSON-LD of an article type (schema.org), Open Graph and article
 * meta, Dublin Core, plain meta, then what is visible (`rel=author`, `<time>`, `<h1>`, `<title>`).
 *
 * @param base the address that relative addresses are resolved against
 */
export function readMetadata(document: PageDocument, base: string): Metadata {
  const elements = [...descendants(document)];
  const meta = metaReader(elements);
  const linked = articleFromJsonLd(elements);
  const headTitle = findElement(document, (e) => e.tagName === 'title');
  const heading = headlines(elements);
  const siteName =
    nameOf(linked?.publisher) ?? meta('og:site_name') ?? meta('application-name') ?? nameOf(linked?.isPartOf);
  const title =
    text(linked?.headline) ??
    text(linked?.name) ??
    meta('og:title') ??
    meta('dc.title', 'dcterms.title', 'citation_title', 'twitter:title') ??
    (headTitle ? tidy(textOf(headTitle)) : '');
  return {
    title: clip([withoutSiteName(title, siteName, heading), heading[0]].find(Boolean), 1000),
    byline: clip(
      authors(linked?.author) ??
        personOnly(
          meta(
            'author',
            'article:author',
            'dc.creator',
            'dcterms.creator',
            'citation_author',
            'parsely-author',
          ),
        ) ??
        visibleByline(elements),
      500,
    ),
    siteName: clip(siteName ?? siteNameInTitle(title, heading), 300)?.replace(/^www\.|^\[|\]$/g, '') ?? null,
    publishedAt:
      isoDate(text(linked?.datePublished)) ??
      isoDate(
        meta(
          'article:published_time',
          'og:article:published_time',
          'datepublished',
          'dc.date',
          'dcterms.date',
          'dcterms.created',
          'dc.date.issued',
          'citation_publication_date',
          'parsely-pub-date',
          'date',
          'pubdate',
        ),
      ) ??
      timeElement(elements) ??
      findVisibleDate(elements, declaredLanguage(document) ?? null) ??
      dateInAddress(base),
    language:
      declaredLanguage(document) ??
      text(linked?.inLanguage) ??
      meta('og:locale', 'content-language', 'dc.language') ??
      null,
    description: clip(
      meta('og:description', 'description', 'twitter:description', 'dc.description') ??
        text(linked?.description),
      600,
    ),
    leadImageUrl: absolute(imageOf(linked?.image) ?? meta('og:image', 'og:image:url', 'twitter:image'), base),
    canonicalUrl: absolute(linkHref(elements, 'canonical') ?? meta('og:url'), base),
    articleBody: typeof linked?.articleBody === 'string' ? linked.articleBody : null,
    statedWordCount: wordCountOf(linked?.wordCount),
    accessibleForFree: !['false', 'False', false].includes(linked?.isAccessibleForFree as string | boolean),
  };
}

const MOST_HEADLINES = 20;

/** What may be the headline: first `h1`, then lesser headings and what is named so. */
function headlines(elements: PageElement[]): string[] {
  const of = (wanted: (e: PageElement) => boolean) =>
    elements
      .filter(wanted)
      .slice(0, MOST_HEADLINES)
      .map((e) => startOfText(e, 300))
      .filter((each) => each.length > 0 && each.length < 300);
  return [
    ...of((e) => e.tagName === 'h1'),
    ...of((e) => /^h[23]$/.test(e.tagName)).slice(0, 6),
    ...of(
      (e) =>
        /(?:^|[\s_-])(?:headline|title)(?:$|[\s_-])/.test(label(e)) &&
        !/^(?:h[1-6]|a|meta|title)$/.test(e.tagName),
    ).slice(0, 6),
  ];
}

function declaredLanguage(document: PageDocument): string | undefined {
  const html = findElement(document, (e) => e.tagName === 'html');
  return html && attribute(html, 'lang');
}

function metaReader(elements: PageElement[]): (...names: string[]) => string | null {
  const values = new Map<string, string>();
  for (const element of elements) {
    if (element.tagName !== 'meta') continue;
    const content = tidy(attribute(element, 'content') ?? '');
    const name =
      attribute(element, 'property') ??
      attribute(element, 'name') ??
      attribute(element, 'itemprop') ??
      attribute(element, 'http-equiv');
    const key = name?.trim().toLowerCase();
    if (key && content && !values.has(key)) values.set(key, content);
  }
  return (...names) => names.map((name) => values.get(name)).find((value) => value !== undefined) ?? null;
}

const LinkedThing = z.record(z.string(), z.unknown());
type LinkedThing = z.infer<typeof LinkedThing>;
const ARTICLE_TYPE =
  /(Article|BlogPosting|Report|Posting|NewsItem|CreativeWork|Review|Recipe|HowTo|Book|Chapter)$/;

function articleFromJsonLd(elements: PageElement[]): LinkedThing | undefined {
  const things: LinkedThing[] = [];
  for (const element of elements) {
    if (element.tagName !== 'script' || !/ld\+json/i.test(attribute(element, 'type') ?? '')) continue;
    collectThings(
      parseLoosely(
        element.childNodes
          .filter(isText)
          .map((node) => node.value)
          .join(''),
      ),
      things,
      0,
    );
  }
  const typed = (thing: LinkedThing) =>
    [thing['@type']].flat().some((type) => ARTICLE_TYPE.test(String(type)));
  return things.find((thing) => typed(thing) && 'headline' in thing) ?? things.find(typed);
}

function collectThings(value: unknown, things: LinkedThing[], depth: number): void {
  if (depth > 4) return;
  if (Array.isArray(value)) {
    for (const each of value) collectThings(each, things, depth + 1);
    return;
  }
  const parsed = LinkedThing.safeParse(value);
  if (!parsed.success) return;
  if ('@type' in parsed.data) things.push(parsed.data);
  for (const key of ['@graph', 'mainEntity', 'mainEntityOfPage'])
    collectThings(parsed.data[key], things, depth + 1);
}

/** JSON as pages write it: in comments or CDATA, with raw line breaks inside strings, with a comma too many. */
function parseLoosely(source: string): unknown {
  const bare = source
    .replace(/^\s*(?:<!--|\/\*.*?\*\/|\/\/)?\s*(?:<!\[CDATA\[)?(?:\*\/)?/s, '')
    .replace(/(?:\/\/|\/\*)?\s*(?:\]\]>)?\s*(?:\*\/)?\s*(?:-->)?\s*;?\s*$/s, '');
  for (const attempt of [source, bare, bare.replace(/\p{Cc}+/gu, ' ').replace(/,\s*([\]}])/g, '$1')]) {
    try {
      return JSON.parse(attempt);
    } catch {
      // Not JSON in this reading; the next one is looser. A page whose JSON-LD stays broken has its other metadata.
    }
  }
  return undefined;
}

function text(value: unknown): string | null {
  if (Array.isArray(value)) return text(value[0]);
  if (typeof value === 'number') return String(value);
  if (typeof value !== 'string') return null;
  return decodeEntities(tidy(value)) || null;
}

const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
};

/** JSON-LD is often escaped twice. */
function decodeEntities(value: string): string {
  return value
    .replace(/&#(x?)([0-9a-f]{1,6});/gi, (_, hex: string, code: string) => {
      const point = parseInt(code, hex ? 16 : 10);
      return point > 0 && point <= 0x10ffff ? String.fromCodePoint(point) : '';
    })
    .replace(/&(amp|lt|gt|quot|apos|nbsp);/g, (_, name: string) => ENTITIES[name] ?? '');
}

function firstOf(value: unknown): unknown {
  return Array.isArray(value) ? (value as unknown[])[0] : value;
}

function nameOf(value: unknown): string | null {
  const one = firstOf(value);
  if (typeof one === 'string') return /^https?:/.test(one) ? null : text(one);
  const thing = LinkedThing.safeParse(one);
  return thing.success ? text(thing.data.name) : null;
}

function authors(value: unknown): string | null {
  const names = [value]
    .flat()
    .map(nameOf)
    .filter((name) => name !== null);
  return names.length > 0 ? [...new Set(names)].join(', ') : null;
}

function imageOf(value: unknown): string | null {
  const one = firstOf(value);
  const thing = LinkedThing.safeParse(one);
  return thing.success ? text(thing.data.url) : text(one);
}

function wordCountOf(value: unknown): number | null {
  const count = Number(value);
  return Number.isInteger(count) && count > 0 ? count : null;
}

function personOnly(value: string | null): string | null {
  return value === null || /^(https?:)?\/\//.test(value) || value.startsWith('@') ? null : personIn(value);
}

/** "By", in some languages, before a name. */
const BY =
  /^(?:by|written by|words by|text by|posted by|story by|from|von|par|por|di|door|av|af|od)\s*:?\s+/i;
/** What follows a name in a byline and is none of it. */
const BEHIND_A_NAME =
  /\s*(?:[|·•–—]|\s-\s|\bon (?=\p{L}+\.? \d|\d)|\bat (?=\d)|@\w|\d+ ?comments?\b|\bpublished\b|\bposted\b|\bupdated\b|,?\s+(?:\p{L}{3,9}\.?\s+)?\d{1,2}(?:st|nd|rd|th)?,?[\s:.]|\d{1,2}:\d{2}).*$/isu;

function withoutBy(value: string): string {
  return value.replace(BY, '').trim();
}

/** The text of an element with a space between the texts of its parts: names run into dates otherwise. */
function spacedText(element: PageElement): string {
  return element.childNodes
    .map((node) => ('childNodes' in node && 'tagName' in node ? spacedText(node) : textOf(node)))
    .join(' ');
}

/** A byline as a name; null when it is a date, an address or a sentence. */
function personIn(byline: string): string | null {
  const name = withoutBy(withoutBy(tidy(byline)).replace(BEHIND_A_NAME, '')).replace(/[\s,;:]+$/, '');
  if (name.length < 2 || name.length > 100 || !/\p{L}{2}/u.test(name)) return null;
  if (BY.test(`${name} `) || /^(?:more|all|see|view|read)\b/i.test(name)) return null;
  if (/^\d|^(?:https?:|www\.)|\.(?:com|org|net|fr|es|de|co\.uk)$/i.test(name) || dateIn(name, 'en'))
    return null;
  return name.split(/\s+/).length > 12 ? null : name;
}

const BYLINE_LABEL =
  /\b(byline|p-author|author-?name|article-?author|post-?author|c-byline|writer|auteur|autor)\b/;
const MOST_BYLINES = 60;
const LONGEST_BYLINE = 300;
const NOT_THE_AUTHOR = /comment|related|sidebar|footer|nav|avatar|bio\b|teaser/;

function visibleByline(elements: PageElement[]): string | null {
  const own = (e: PageElement) => {
    for (
      let at: PageElement['parentNode'] = e, up = 0;
      at && 'tagName' in at && up < 6;
      at = at.parentNode, up++
    )
      if (NOT_THE_AUTHOR.test(label(at))) return false;
    return true;
  };
  const candidates = [
    elements.filter((e) => attribute(e, 'itemprop') === 'author'),
    elements.filter((e) => attribute(e, 'rel')?.split(/\s+/).includes('author')),
    elements.filter((e) => BYLINE_LABEL.test(label(e)) && own(e)),
    elements.filter((e) => /\bauthor\b/.test(label(e)) && own(e)),
  ].flat();
  for (const element of candidates.slice(0, MOST_BYLINES)) {
    if (startOfText(element, LONGEST_BYLINE).length > LONGEST_BYLINE) continue;
    const inner = findElement(
      element,
      (e) => attribute(e, 'itemprop') === 'name' || /\b(?:fn|name)\b/.test(label(e)),
    );
    // A link inside a byline is the name; the rest is where they work and what they wrote before.
    const link = findElement(inner ?? element, (e) => e.tagName === 'a' && tidy(textOf(e)) !== '');
    const name = (link && personIn(spacedText(link))) ?? personIn(spacedText(inner ?? element));
    if (name) return name;
  }
  return lineThatSaysBy(elements);
}

/** "By Ada Quill" on a line of its own near the headline. */
function lineThatSaysBy(elements: PageElement[]): string | null {
  const headline = elements.findIndex((e) => e.tagName === 'h1');
  for (const element of elements.slice(Math.max(0, headline), headline + 120)) {
    if (!/^(?:p|div|span|li|td|h[2-6]|em|i|b|strong|small|cite)$/.test(element.tagName)) continue;
    const text = startOfText(element, 90);
    if (text.length < 90 && /^(?:by|written by|von|par|por)\s*:?\s+\p{Lu}/iu.test(text)) {
      const name = personIn(text);
      if (name && /^\p{Lu}/u.test(name)) return name;
    }
  }
  return null;
}

/** An ISO 8601 date, from that or from another form that dates take in metadata; null if it is none. */
function isoDate(value: string | null): string | null {
  if (!value) return null;
  const trimmed = value.trim();
  if (/^\d{4}-\d{2}-\d{2}([T ]\d{2}:\d{2}.*)?$/.test(trimmed)) {
    const iso = trimmed.replace(' ', 'T').replace(/\s+/g, '');
    return Number.isNaN(Date.parse(iso)) ? null : iso.slice(0, 40);
  }
  if (/^\d{4}[/.]\d{1,2}[/.]\d{1,2}$/.test(trimmed)) {
    const [year = '', month = '', day = ''] = trimmed.split(/[/.]/);
    return isoDate(`${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`);
  }
  // RFC 2822 and "3 November 2026": without a stated zone they are read as UTC, so that the day stays the day.
  const spelled = /[+-]\d{4}|\b(?:GMT|UTC|[ECMP][SD]T)\b|Z$/.test(trimmed) ? trimmed : `${trimmed} UTC`;
  const time = /\d{4}/.test(trimmed) && /\p{L}{3}/u.test(trimmed) ? Date.parse(spelled) : NaN;
  return Number.isNaN(time) ? null : new Date(time).toISOString().replace(/T00:00:00\.000Z$/, '');
}

function timeElement(elements: PageElement[]): string | null {
  const times = elements.filter((e) => e.tagName === 'time' || attribute(e, 'itemprop') === 'datePublished');
  const preferred = times.find(
    (e) =>
      attribute(e, 'pubdate') !== undefined ||
      /publish/i.test(`${attribute(e, 'itemprop') ?? ''} ${label(e)}`),
  );
  for (const element of preferred ? [preferred, ...times] : times) {
    const date = isoDate(
      attribute(element, 'datetime') ?? attribute(element, 'content') ?? tidy(textOf(element)),
    );
    if (date) return date;
  }
  return null;
}

/** "Larch or oak | The Slipway" → "Larch or oak": cut at a separator when the rest names the site or a heading confirms it. */
function withoutSiteName(title: string, siteName: string | null, headings: string[]): string {
  const clean = tidy(title);
  const same = (a: string, b: string) => a.localeCompare(b, undefined, { sensitivity: 'base' }) === 0;
  const confirmed = headings.find(
    (heading) =>
      heading.length > 3 &&
      heading.length < clean.length &&
      // A word or two before much else is more likely the site's sign than the headline.
      (heading.split(' ').length > 2 || clean.replace(heading, '').split(/\s+/).length <= 6) &&
      (clean.startsWith(heading) || clean.endsWith(heading)),
  );
  if (confirmed) {
    const rest = clean.replace(confirmed, '');
    if (/^\s*[|\-–—»«:·•/\\]|[|\-–—»«:·•/\\]\s*$/.test(rest)) return confirmed;
  }
  const bracketed = /^(.{8,}?)\s*\[[^\]]{2,25}\.[a-z]{2,4}\]$/i.exec(clean)?.[1];
  if (bracketed) return bracketed;
  const parts = clean.split(/\s+[|–—»«·•]\s+|\s+[-/]\s+/);
  if (parts.length < 2) return clean;
  const last = parts.at(-1) ?? '';
  const first = parts[0] ?? '';
  if (siteName && same(last, siteName))
    return clean.slice(0, clean.lastIndexOf(last)).replace(/[\s|\-–—»«·•/]+$/, '');
  if (siteName && same(first, siteName)) return clean.slice(first.length).replace(/^[\s|\-–—»«·•/]+/, '');
  if (siteName && isOfSite(last, siteName))
    return clean.slice(0, clean.lastIndexOf(last)).replace(/[\s|\-–—»«·•/]+$/, '');
  const hard = clean.split(/\s+[|»]\s+/);
  const main = hard[0] ?? '';
  return hard.length > 1 && main.split(' ').length >= 3 ? main : clean;
}

/** "COURIER NewsFeed" belongs to "Courier.com": a few words, the first of them the site's. */
function isOfSite(part: string, siteName: string): boolean {
  const plain = (value: string) =>
    value
      .toLowerCase()
      .replace(/^(?:the|www\.)\s*|\.(?:com|org|net)\b/g, '')
      .trim();
  const first = plain(siteName).split(/\s+/)[0] ?? '';
  const words = plain(part).split(/\s+/);
  return words.length <= 4 && first.length > 2 && words[0] === first;
}

const AROUND_A_SEPARATOR = /^[\s|\-–—»«:·•/\\]+|[\s|\-–—»«:·•/\\]+$/g;

/** "Larch or oak | The Slipway" under the headline "Larch or oak": what is left over is the site's name. */
function siteNameInTitle(title: string, headings: string[]): string | null {
  const headline = headings.find((heading) => heading.length > 3 && title.startsWith(heading));
  if (!headline) return null;
  const rest = title.replace(headline, '');
  const name = rest.replace(AROUND_A_SEPARATOR, '');
  return name !== rest && name.length > 1 && name.length <= 40 && !/[|»·•]/.test(name) ? name : null;
}

function linkHref(elements: PageElement[], rel: string): string | null {
  const link = elements.find(
    (e) => e.tagName === 'link' && attribute(e, 'rel')?.toLowerCase().split(/\s+/).includes(rel),
  );
  return (link && attribute(link, 'href')) ?? null;
}

/** An absolute http address, or null. */
export function absolute(address: string | null | undefined, base: string): string | null {
  if (!address) return null;
  try {
    const url = new URL(address.trim(), base);
    return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : null;
  } catch {
    // URL's parser says by throwing that this is no address.
    return null;
  }
}

function clip(value: string | null | undefined, length: number): string | null {
  if (!value) return null;
  return value.length <= length ? value : `${value.slice(0, length - 1)}…`;
}
