import { type Fact, MAX_FACTS } from '../../model';
import { isoDate, languageOf } from '../../text';
import {
  attribute,
  descendants,
  findElement,
  label,
  type PageDocument,
  type PageElement,
  startOfText,
  textContent,
  tidy,
} from '../page/page-tree';
import { type StatedPosts, statedThread } from '../threads/stated-posts';
import { namesIn, NOBODY, personOnly, visibleAuthors } from './bylines';
import { readFacts, readMetaFacts } from './facts';
import { headlinesOf, nameBeforeColon, siteNamesInTitle, titleOf } from './headline';
import { firstOf, isOfType, nameOf, readThings, type StatedThing, textValue, Thing } from './linked-data';
import { siteIconOf } from './site-icon';
import { siteNameOf, visibleSiteNames } from './site-name';
import { statedTexts } from './stated-texts';
import { dateInAddress, eitherOrder, findVisibleDate } from './visible-date';

/** What a page states about itself. Null where it states nothing. */
export interface Metadata {
  title: string | null;
  /** Names of people or bodies; empty where none is stated. */
  authors: string[];
  siteName: string | null;
  /** ISO 8601; the zone is kept when the page states one. */
  publishedAt: string | null;
  modifiedAt: string | null;
  /** As declared, not yet checked against the text. */
  language: string | null;
  description: string | null;
  leadImageUrl: string | null;
  /** Of the site: absolute, http or https. */
  iconUrl: string | null;
  /** Absolute, http or https. */
  canonicalUrl: string | null;
  /** Where the licence of the text stands: absolute, http or https. */
  licenceUrl: string | null;
  /** The text as the page states it beside its markup (schema.org articleBody); it may be markup itself. */
  articleBody: string | null;
  /** What the page's data say of the words of the article, and of what others wrote about it. */
  statedTexts: { own: string[]; others: string[] };
  /** The posts of a thread, as the page's data state them. */
  statedThread: StatedPosts | null;
  /** The number of words that the page itself claims, if it does. */
  statedWordCount: number | null;
  /** False when the page says that its text is not free to read (schema.org isAccessibleForFree). */
  accessibleForFree: boolean;
  facts: Fact[];
}

/**
 * Reads a page's metadata. Order of trust: JSON-LD of an article type (schema.org), Open Graph and article
 * meta, Dublin Core, microdata, RDFa Lite, plain meta and link, then what is visible (`rel=author`, `<time>`,
 * `<h1>`, `<title>`).
 *
 * @param base the address that relative addresses are resolved against
 * @param elements all of the page, in document order
 */
export function readMetadata(
  document: PageDocument,
  base: string,
  elements: PageElement[] = descendants(document),
): Metadata {
  const meta = metaReader(elements);
  const things = readThings(document, elements);
  const linked = articleOf(things.filter(({ source }) => source === 'json-ld'));
  const marked = articleOf(things.filter(({ source }) => source !== 'json-ld'));
  const headTitle = findElement(document, (e) => e.tagName === 'title');
  const pageTitle = headTitle ? tidy(textContent(headTitle)) : '';
  const headings = headlinesOf(elements);
  const facts = readFacts(things);
  const stated =
    textValue(linked?.headline) ??
    textValue(linked?.name) ??
    meta('og:title', 'dc.title', 'dcterms.title', 'citation_title') ??
    textValue(marked?.headline) ??
    meta('twitter:title') ??
    pageTitle;
  const host = hostOf(base);
  const seen = visibleSiteNames(elements, host);
  const siteName = clip(
    siteNameOf(
      [
        { name: meta('og:site_name'), weight: 3 },
        { name: nameOf(linked?.publisher), weight: 2.5 },
        { name: nameOf(things.find(({ thing }) => isOfType(thing, /WebSite$/))?.thing), weight: 2.5 },
        { name: meta('application-name'), weight: 2 },
        { name: nameOf(linked?.isPartOf), weight: 2 },
        ...siteNamesInTitle(pageTitle, headings).map((name, at) => ({ name, weight: 2 - at })),
        { name: nameBeforeColon(pageTitle), weight: 1.5, mustBeBorneOut: true },
        { name: seen.masthead, weight: 1.5 },
        { name: seen.owner, weight: 0.5 },
      ],
      host,
    ),
    300,
  );
  const shownTitle = clip(
    [titleOf(stated, pageTitle, headings, siteName), ...headings.first, ...headings.other].find(Boolean),
    1000,
  );
  const shownDate = () => timeElement(elements) ?? findVisibleDate(elements, languageFor(document), shownTitle);
  /** A date of numbers, whichever of day and month comes first: as the page shows it, else as its language writes it. */
  const writtenDate = (written: string | null | undefined): string | null => {
    const stated = isoDate(written ?? null);
    if (stated !== null || !written) return stated;
    const [day, swapped] = eitherOrder(written, languageFor(document));
    return swapped !== null && shownDate()?.startsWith(swapped) ? swapped : day;
  };
  const publishedAt = () =>
    isoDate(textValue(linked?.datePublished)) ??
    isoDate(
      meta(
        'article:published_time',
        'og:article:published_time',
        'dc.date',
        'dcterms.date',
        'dcterms.created',
        'dc.date.issued',
      ),
    ) ??
    isoDate(textValue(marked?.datePublished)) ??
    writtenDate(
      meta(
        'datepublished',
        'citation_publication_date',
        'citation_date',
        'parsely-pub-date',
        'sailthru.date',
        'date',
        'pubdate',
        'publishdate',
      ) ?? meta.like(PUBLISHED),
    ) ??
    shownDate() ??
    dateInAddress(base);
  return {
    title: shownTitle,
    authors: authorsOf(linked, marked, meta, elements),
    siteName,
    publishedAt: publishedAt(),
    modifiedAt:
      isoDate(textValue(linked?.dateModified)) ??
      isoDate(meta('article:modified_time', 'og:updated_time', 'dcterms.modified', 'dc.date.modified')) ??
      isoDate(textValue(marked?.dateModified)) ??
      isoDate(meta('datemodified', 'last-modified')),
    language:
      declaredLanguage(document) ??
      textValue(linked?.inLanguage) ??
      meta('og:locale', 'content-language', 'dc.language') ??
      null,
    description: clip(
      meta('og:description', 'description', 'twitter:description', 'dc.description') ?? textValue(linked?.description),
      600,
    ),
    leadImageUrl: absolute(imageOf(linked?.image) ?? meta('og:image', 'og:image:url', 'twitter:image'), base),
    iconUrl: absolute(siteIconOf(elements), base),
    canonicalUrl: absolute(linkHref(elements, 'canonical') ?? meta('og:url'), base),
    licenceUrl: absolute(
      linkHref(elements, 'license') ??
        imageOf(linked?.license) ??
        imageOf(marked?.license) ??
        meta('dcterms.license', 'dc.rights.license'),
      base,
    ),
    articleBody: typeof linked?.articleBody === 'string' ? linked.articleBody : null,
    statedTexts: statedTexts(things),
    statedThread: statedThread(things),
    statedWordCount: wordCountOf(linked?.wordCount),
    accessibleForFree:
      !['false', 'False', false].includes(linked?.isAccessibleForFree as string | boolean) &&
      meta('article:content_tier')?.toLowerCase() !== 'locked',
    facts: [...facts, ...readMetaFacts(meta, facts)].slice(0, MAX_FACTS),
  };
}

function declaredLanguage(document: PageDocument): string | undefined {
  const html = findElement(document, (e) => e.tagName === 'html');
  return html && attribute(html, 'lang');
}

/** The language in which a page's dates are to be read: as declared, else as its words are. */
function languageFor(document: PageDocument): string | null {
  return declaredLanguage(document) ?? languageOf(startOfText(document, 3000), null);
}

/** So many values of one name are read: authors, of whom there may be many. */
const MOST_OF_ONE = 40;

interface MetaReader {
  /** The first that is there, in the order asked for. */
  (...names: string[]): string | null;
  /** The first whose name is of a kind. */
  like(name: RegExp): string | null;
  /** All values of the name that is there first, in the order asked for; some are written once for each author. */
  all(...names: string[]): string[];
}

/** Names that sites make up for themselves. Common practice. */
const PUBLISHED =
  /^(?:[a-z]+[._:-])?(?:pub(?:lish(?:ed)?)?|create|issue)d?[._:-]?(?:date|time|on|at)?$|^(?:[a-z]+[._:-])(?:date|pubdate)$/;
const WRITTEN_BY = /^(?:[a-z]+[._:-])?(?:authors?|byline|byl|writer)(?:[._:-]?names?)?$/;

function metaReader(elements: PageElement[]): MetaReader {
  const values = new Map<string, string[]>();
  for (const element of elements) {
    if (element.tagName !== 'meta') continue;
    const content = tidy(attribute(element, 'content') ?? '');
    const name =
      attribute(element, 'property') ??
      attribute(element, 'name') ??
      attribute(element, 'itemprop') ??
      attribute(element, 'http-equiv');
    const key = name?.trim().toLowerCase();
    if (key && content) values.set(key, [...(values.get(key) ?? []), content].slice(0, MOST_OF_ONE));
  }
  return Object.assign(
    (...names: string[]) => names.map((name) => values.get(name)?.[0]).find((value) => value !== undefined) ?? null,
    {
      like: (name: RegExp) => [...values].find(([key]) => name.test(key))?.[1][0] ?? null,
      all: (...names: string[]) => names.map((name) => values.get(name)).find((value) => value !== undefined) ?? [],
    },
  );
}

const ARTICLE_TYPE = /(Article|BlogPosting|Report|Posting|NewsItem|CreativeWork|Review|Recipe|HowTo|Book|Chapter)$/;

function articleOf(things: readonly StatedThing[]): Thing | undefined {
  const articles = things.map(({ thing }) => thing).filter((thing) => isOfType(thing, ARTICLE_TYPE));
  return articles.find((thing) => 'headline' in thing) ?? articles[0];
}

function authorsOf(
  linked: Thing | undefined,
  marked: Thing | undefined,
  meta: MetaReader,
  elements: PageElement[],
): string[] {
  const first = meta('author');
  const listed = meta.all('dc.creator', 'dcterms.creator', 'citation_author').map(asSpoken);
  const each = [...meta.all('article:author'), ...listed];
  const other = meta('parsely-author', 'sailthru.author') ?? meta.like(WRITTEN_BY);
  const meant = (first !== null ? [first] : each.length > 0 ? each : [other]).flatMap((name) => personOnly(name) ?? []);
  const seen = () => {
    if (meant.length > 0) return clipped(meant.flatMap(namesIn));
    const shown = namesOf(marked?.author).flatMap((name) => personOnly(name) ?? []);
    return shown.length > 0 ? shown : clipped(visibleAuthors(elements).flatMap(namesIn));
  };
  const stated = namesOf(linked?.author ?? linked?.creator);
  const [one, ...others] = stated;
  if (one === undefined) return seen();
  // Where only a first name is stated, the rest may be shown.
  const fuller = others.length === 0 && !one.includes(' ') ? seen() : [];
  return fuller.length === 1 && fuller[0]?.startsWith(`${one} `) ? fuller : stated;
}

/** "Quill, Ada", as catalogues and journals write a name, as it is said. */
function asSpoken(name: string): string {
  const [family = '', given = '', ...more] = name.split(', ');
  // Two names of two words each are two people.
  const isOne = more.length === 0 && given !== '' && !(family.includes(' ') && given.includes(' '));
  return isOne && /^[\p{L}.'’ -]{2,120}$/u.test(family + given) ? `${given} ${family}` : name;
}

/** What is longer is no name. In characters. */
const MOST_NAME = 1000;

function namesOf(value: unknown): string[] {
  const names = [value]
    .flat()
    .slice(0, 40)
    .map((each) =>
      nameOf(each)
        ?.slice(0, MOST_NAME)
        .replace(/\s*<.*$/, ''),
    )
    .filter((name) => name !== undefined && name !== '' && !NOBODY.test(name) && !name.startsWith('@'));
  return clipped(names.length === 1 ? names.flatMap((name) => namesIn(name ?? '')) : (names as string[]));
}

function clipped(names: readonly string[]): string[] {
  return [...new Set(names)].map((name) => clip(name, 200) ?? name);
}

/** The address of a picture, or of another thing that may stand as an address or as a thing that has one. */
function imageOf(value: unknown): string | null {
  const one = firstOf(value);
  const thing = Thing.safeParse(one);
  return thing.success ? textValue(thing.data.url ?? thing.data.contentUrl ?? thing.data['@id']) : textValue(one);
}

function wordCountOf(value: unknown): number | null {
  const count = Number(value);
  return Number.isInteger(count) && count > 0 ? count : null;
}

function timeElement(elements: PageElement[]): string | null {
  const times = elements.filter((e) => e.tagName === 'time' || attribute(e, 'itemprop') === 'datePublished');
  const preferred = times.find(
    (e) => attribute(e, 'pubdate') !== undefined || /publish/i.test(`${attribute(e, 'itemprop') ?? ''} ${label(e)}`),
  );
  for (const element of preferred ? [preferred, ...times] : times) {
    const date = isoDate(attribute(element, 'datetime') ?? attribute(element, 'content') ?? tidy(textContent(element)));
    if (date) return date;
  }
  return null;
}

function linkHref(elements: PageElement[], rel: string): string | null {
  const link = elements.find(
    (e) =>
      (e.tagName === 'link' || (rel === 'license' && e.tagName === 'a')) &&
      attribute(e, 'rel')?.toLowerCase().split(/\s+/).includes(rel),
  );
  return (link && attribute(link, 'href')) ?? null;
}

function hostOf(address: string): string {
  try {
    return new URL(address).hostname;
  } catch {
    // What has no address has no host either.
    return '';
  }
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
