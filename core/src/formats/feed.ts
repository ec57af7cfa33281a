import render from 'dom-serializer';
import type { Document, Element } from 'domhandler';
import escape from 'escape-html';
import { z } from 'zod';
import { isoDate } from '../text';
import {
  attributeOf,
  childOf,
  childrenOf,
  elementsIn,
  filled,
  oneLine,
  parseXml,
  within,
  wordsOfHtml,
  xmlText,
} from './xml';

/** What a feed announces. */
export interface ReadEntry {
  /** What tells it from the others of its feed for good: its id, or else its address or title. */
  key: string;
  /** The page it is about; null when it names none. */
  address: string | null;
  title: string | null;
  authors: string[];
  /** ISO 8601. */
  publishedAt: string | null;
  updatedAt: string | null;
  /** In plain words. */
  summary: string | null;
  /** Its text as HTML, where there is one and it was asked for. */
  content?: string;
}

export interface ReadFeed {
  title: string | null;
  /** The site that the feed is of. */
  siteUrl: string | null;
  /** After how many minutes at the earliest the feed asks to be looked at again; null when it does not say. */
  restMinutes: number | null;
  /** As the feed has them, at most MAX_ENTRIES. */
  entries: ReadEntry[];
}

interface ReadWish {
  /** No more entries are read. */
  most: number;
  withContent: boolean;
}

/** Of one feed no more is read. */
const MAX_ENTRIES = 500;
const MAX_SUMMARY_LENGTH = 600;

/**
 * Reads a feed: RSS 0.9x and 2.0 (RSS Advisory Board, "RSS 2.0 Specification"), RSS 1.0 (RDF Site Summary), Atom 1.0
 * (RFC 4287) and 0.3, JSON Feed 1.0 and 1.1 (jsonfeed.org). What is ill-formed gives what can be made of it.
 *
 * @param source the feed as text
 * @param url where it was found: addresses in it may be relative
 * @param wish the first 500 entries without their texts, where nothing else is wished
 * @returns null when it is no feed
 */
export function readFeed(
  source: string,
  url: string,
  wish: ReadWish = { most: MAX_ENTRIES, withContent: false },
): ReadFeed | null {
  const start = source.replace(/^\uFEFF/, '').trimStart();
  if (start.startsWith('{')) return readJsonFeed(start, url, wish);
  const document = parseXml(start);
  const root = rootOf(document);
  if (!root) return null;
  const kind = withoutPrefixOf(root);
  const base = baseOf(root, url);
  return kind === 'feed' ? readAtom(root, base, wish) : readRss(root, base, wish);
}

/** The element that makes it a feed; the channel itself where its envelope is missing. */
function rootOf(document: Document): Element | undefined {
  return elementsIn(document).find((each) => /^(?:\w+:)?(?:rss|rdf|feed|channel)$/i.test(each.name));
}

/** Frees the names of a document whose own vocabulary has a prefix (`atom:feed`) of it. @returns the root's name */
function withoutPrefixOf(root: Element): string {
  const [prefix, name] = root.name.includes(':') ? root.name.split(':') : ['', root.name];
  if (prefix && name?.toLowerCase() !== 'rdf') {
    const strip = (element: Element) => {
      if (element.name.startsWith(`${prefix}:`)) element.name = element.name.slice(prefix.length + 1);
    };
    strip(root);
    for (const element of elementsIn(root)) {
      strip(element);
      for (const inner of elementsIn(element)) {
        strip(inner);
        elementsIn(inner).forEach(strip);
      }
    }
  }
  return (name ?? '').toLowerCase();
}

function readRss(root: Element, base: string, { most, withContent }: ReadWish): ReadFeed {
  const channel = root.name.toLowerCase() === 'channel' ? root : (childOf(root, 'channel') ?? root);
  const at = baseOf(channel, base);
  // In RSS 1.0 and 0.90 the items stand beside the channel; behind an element that was never closed, inside that.
  const items = within(root, 'item');
  return {
    title: title(childOf(channel, 'title', 'dc:title')),
    siteUrl: resolved(xmlText(childOf(channel, 'link')) ?? atomLink(channel, 'atom:link'), at),
    restMinutes: restMinutesOf(channel),
    entries: items.slice(0, most).map((item) => ({
      ...rssEntry(item, baseOf(item, at)),
      ...contentOf(withContent, childOf(item, 'content:encoded', 'description')),
    })),
  };
}

function rssEntry(item: Element, base: string): ReadEntry {
  const guid = childOf(item, 'guid');
  const id = xmlText(guid) ?? attributeOf(item, 'rdf:about');
  const permalink = guid && attributeOf(guid, 'ispermalink')?.toLowerCase() !== 'false' ? xmlText(guid) : null;
  const address =
    resolved(xmlText(childOf(item, 'link')), base) ??
    resolved(atomLink(item, 'atom:link'), base) ??
    (permalink && /^https?:/i.test(permalink) ? resolved(permalink, base) : null) ??
    resolved(attributeOf(item, 'rdf:about'), base) ??
    resolved(attributeOf(childOf(item, 'enclosure') ?? item, 'url'), base);
  const named = title(childOf(item, 'title', 'dc:title'));
  return {
    key: id ?? address ?? named ?? '',
    address,
    title: named,
    authors: ['author', 'dc:creator', 'itunes:author']
      .flatMap((name) => childrenOf(item, name))
      .flatMap((each) => rssAuthor(words(each)))
      .filter(isFirst),
    publishedAt: isoDate(xmlText(childOf(item, 'pubdate', 'dc:date', 'dcterms:issued', 'atom:published'))),
    updatedAt: isoDate(xmlText(childOf(item, 'atom:updated', 'dcterms:modified'))),
    summary: cut(words(childOf(item, 'description', 'content:encoded', 'itunes:summary', 'dc:description'))),
  };
}

/** RSS names authors by their mail, the name in brackets behind it; many write just the name. */
function rssAuthor(written: string | null): string[] {
  if (!written) return [];
  const named =
    /^[^\s@]+@[^\s(@]+\s*\(([^)]+)\)$/.exec(written)?.[1] ?? /^([^<]+)<[^\s<>@]+@[^\s<>@]+>$/.exec(written)?.[1];
  return [(named ?? written).trim().slice(0, 200)];
}

function readAtom(root: Element, base: string, { most, withContent }: ReadWish): ReadFeed {
  const entries = within(root, 'entry').slice(0, most);
  const authors = atomAuthors(root);
  return {
    title: title(childOf(root, 'title')),
    siteUrl: resolved(atomLink(root, 'link'), base),
    restMinutes: restMinutesOf(root),
    entries: entries.map((entry) => {
      const source = childOf(entry, 'source');
      const own = atomAuthors(entry);
      const inherited = source && atomAuthors(source).length > 0 ? atomAuthors(source) : authors;
      return {
        ...atomEntry(entry, baseOf(entry, base), own.length > 0 ? own : inherited),
        ...contentOf(withContent, childOf(entry, 'content')),
      };
    }),
  };
}

function atomEntry(entry: Element, base: string, authors: string[]): ReadEntry {
  const id = xmlText(childOf(entry, 'id'));
  const content = childOf(entry, 'content');
  const address =
    resolved(atomLink(entry, 'link'), base) ??
    resolved(content ? attributeOf(content, 'src') : null, base) ??
    (id && /^https?:/i.test(id) ? resolved(id, base) : null);
  const named = title(childOf(entry, 'title'));
  const date = (...names: string[]) => isoDate(xmlText(childOf(entry, ...names)));
  return {
    key: id ?? address ?? named ?? '',
    address,
    title: named,
    authors,
    publishedAt: date('published', 'issued', 'created', 'dc:date'),
    updatedAt: date('updated', 'modified'),
    summary: cut(words(childOf(entry, 'summary')) ?? words(content)),
  };
}

function atomAuthors(parent: Element): string[] {
  return childrenOf(parent, 'author')
    .flatMap((author) => {
      const name = childOf(author, 'name');
      // Atom 0.3 as some wrote it: just the name.
      return rssAuthor(name ? words(name) : elementsIn(author).length === 0 ? words(author) : null);
    })
    .filter(isFirst);
}

/** The page that an Atom link of the wanted kind leads to: rel=alternate, which is meant when none is given. */
function atomLink(parent: Element, name: string): string | null {
  const links = childrenOf(parent, name).filter((link) => /^(?:alternate)?$/i.test(attributeOf(link, 'rel') ?? ''));
  const page = links.find((link) => (attributeOf(link, 'type') ?? 'html').includes('html')) ?? links[0];
  return page ? (attributeOf(page, 'href') ?? xmlText(page)) : null;
}

/**
 * What an element says in plain words. Atom tells text from markup (RFC 4287, 3.1.1); in RSS both are written alike, and what
 * looks like markup is taken for it, as is common practice.
 */
function words(element: Element | undefined): string | null {
  if (!element) return null;
  const mode = (attributeOf(element, 'mode') ?? '').toLowerCase();
  const type = (attributeOf(element, 'type') ?? '').toLowerCase();
  if (elementsIn(element).length > 0) return filled(oneLine(xmlText(element) ?? ''));
  const written = xmlText(element);
  if (!written) return null;
  const text = mode === 'base64' || isEncodedByType(type) ? decoded(written) : written;
  const isLiteral = type === 'text' || (type === 'text/plain' && mode !== 'escaped');
  return filled(isLiteral || !looksLikeMarkup(text) ? oneLine(text) : wordsOfHtml(text));
}

/** The text of an entry as HTML: as XHTML inside it (RFC 4287, 3.1.1.3), as HTML that is written as text, or as words. */
function contentOf(isAsked: boolean, element: Element | undefined): { content?: string } {
  if (!isAsked || !element) return {};
  if (elementsIn(element).length > 0) return { content: render(element.children, { encodeEntities: 'utf8' }) };
  const written = xmlText(element);
  if (written === null) return {};
  const isLiteral = (attributeOf(element, 'type') ?? '').toLowerCase() === 'text';
  return { content: isLiteral || !looksLikeMarkup(written) ? paragraphs(written) : written };
}

const paragraphs = (text: string): string =>
  text
    .split(/\n\s*\n/)
    .map((each) => `<p>${escape(each)}</p>`)
    .join('');

/** RFC 4287, 4.1.3.3: content of any type that is neither text nor XML is in Base64. */
function isEncodedByType(type: string): boolean {
  return type.includes('/') && !/^text\/|[/+]xml$|html/.test(type);
}

function decoded(base64: string): string {
  try {
    return new TextDecoder().decode(Uint8Array.from(atob(base64.replace(/\s+/g, '')), (char) => char.charCodeAt(0)));
  } catch {
    // Not Base64 after all, whatever its type says: as it was written.
    return base64;
  }
}

function looksLikeMarkup(text: string): boolean {
  return /<\/?[a-z][^>]*>|&(?:#\d+|#x[\da-f]+|[a-z]\w+);/i.test(text);
}

function title(element: Element | undefined): string | null {
  return words(element)?.slice(0, 1000) ?? null;
}

function cut(text: string | null): string | null {
  if (!text || text.length <= MAX_SUMMARY_LENGTH) return text;
  const short = text.slice(0, MAX_SUMMARY_LENGTH - 1);
  return `${short.slice(0, Math.max(short.lastIndexOf(' '), MAX_SUMMARY_LENGTH / 2))}…`;
}

/** xml:base (XML Base, W3C 2009) above what surrounds it. */
function baseOf(element: Element, base: string): string {
  return resolved(attributeOf(element, 'xml:base'), base) ?? base;
}

/** Of two that both keep it away, the longer rest: `ttl` of RSS 2.0, and the syndication module of RSS 1.0. */
function restMinutesOf(parent: Element): number | null {
  const ttl = Number(xmlText(childOf(parent, 'ttl')) ?? NaN);
  const period = { hourly: 60, daily: 1440, weekly: 10_080, monthly: 43_200, yearly: 525_600 }[
    (xmlText(childOf(parent, 'sy:updateperiod')) ?? '').toLowerCase()
  ];
  const times = Math.max(1, Number(xmlText(childOf(parent, 'sy:updatefrequency')) ?? 1) || 1);
  const rests = [ttl, period === undefined ? NaN : period / times].filter((each) => each > 0);
  return rests.length > 0 ? Math.round(Math.max(...rests)) : null;
}

const text = z.string().trim().min(1).nullable().catch(null).default(null);
const JsonAuthor = z.object({ name: text }).catch({ name: null });
const JsonFeed = z.object({
  version: z.string().startsWith('https://jsonfeed.org/version/'),
  title: text,
  home_page_url: text,
  author: JsonAuthor.optional(),
  authors: z.array(JsonAuthor).catch([]).default([]),
  items: z.array(z.unknown()).catch([]).default([]),
});
const JsonItem = z.object({
  id: z.coerce.string().catch(''),
  url: text,
  external_url: text,
  title: text,
  content_html: text,
  content_text: text,
  summary: text,
  date_published: text,
  date_modified: text,
  author: JsonAuthor.optional(),
  authors: z.array(JsonAuthor).catch([]).default([]),
});

function readJsonFeed(source: string, url: string, { most, withContent }: ReadWish): ReadFeed | null {
  const parsed = JsonFeed.safeParse(jsonOf(source));
  if (!parsed.success) return null;
  const feed = parsed.data;
  const namesOf = ({ authors, author }: Pick<typeof feed, 'author' | 'authors'>) =>
    [...authors, ...(author && authors.length === 0 ? [author] : [])].flatMap(({ name }) => name ?? []);
  const inherited = namesOf(feed);
  return {
    title: feed.title,
    siteUrl: resolved(feed.home_page_url, url),
    restMinutes: null,
    entries: feed.items.slice(0, most).flatMap((each) => {
      const read = JsonItem.safeParse(each);
      if (!read.success) return [];
      const item = read.data;
      const address =
        resolved(item.url, url) ??
        resolved(item.external_url, url) ??
        (/^https?:/i.test(item.id) ? resolved(item.id, url) : null);
      const own = namesOf(item);
      const content = item.content_html ?? (item.content_text === null ? null : paragraphs(item.content_text));
      return {
        key: filled(item.id) ?? address ?? item.title ?? '',
        address,
        title: item.title && oneLine(item.title),
        authors: own.length > 0 ? own : inherited,
        publishedAt: isoDate(item.date_published),
        updatedAt: isoDate(item.date_modified),
        summary: cut(item.summary ?? item.content_text ?? filled(wordsOfHtml(item.content_html ?? ''))),
        ...(withContent && content !== null ? { content } : {}),
      };
    }),
  };
}

function jsonOf(source: string): unknown {
  try {
    return JSON.parse(source);
  } catch {
    // Text that only begins like JSON is no feed; the caller says so.
    return null;
  }
}

/** Absolute, and of the web; null otherwise. */
function resolved(address: string | null, base: string): string | null {
  if (!address || !URL.canParse(address, base)) return null;
  const { protocol, href } = new URL(address, base);
  return protocol === 'http:' || protocol === 'https:' ? href : null;
}

function isFirst<Value>(value: Value, place: number, all: readonly Value[]): boolean {
  return all.indexOf(value) === place;
}
