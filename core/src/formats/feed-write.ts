import { element, xmlDocument } from './xml-write';

/** Something that a feed of ours tells. */
export interface FeedEntryOut {
  /** An IRI that stays the same. */
  id: string;
  title: string;
  /** Milliseconds since 1970. */
  at: number;
  href: string | null;
  summary: string;
}

/** A feed of ours. */
export interface FeedOut {
  title: string;
  author: string;
  /** Of the feed itself. */
  address: string;
  /** Of the page that it is a feed of. */
  home: string;
  /** When it was changed last; the latest of its entries where nothing is said. */
  updatedAt?: number;
  entries: readonly FeedEntryOut[];
}

const iso = (at: number): string => new Date(at).toISOString();

/** A feed as Atom (RFC 4287). */
export function writeAtom({ title, author, address, home, entries, updatedAt }: FeedOut): string {
  const updated = updatedAt ?? Math.max(0, ...entries.map(({ at }) => at));
  return xmlDocument(
    element('feed', { xmlns: 'http://www.w3.org/2005/Atom' }, [
      element('id', {}, address),
      element('title', {}, title),
      element('updated', {}, iso(updated)),
      element('author', {}, [element('name', {}, author)]),
      element('link', { rel: 'self', href: address }),
      element('link', { rel: 'alternate', href: home }),
      ...entries.map((entry) =>
        element('entry', {}, [
          element('id', {}, entry.id),
          element('title', {}, entry.title),
          element('published', {}, iso(entry.at)),
          element('updated', {}, iso(entry.at)),
          // RFC 4287, 4.1.2: an entry without content has a link to what it is about.
          element('link', { rel: 'alternate', href: entry.href ?? home }),
          element('summary', {}, entry.summary),
        ]),
      ),
    ]),
  );
}

/** The same as a JSON Feed (jsonfeed.org, version 1.1). */
export function writeJsonFeed({ title, author, address, home, entries }: FeedOut): string {
  return JSON.stringify({
    version: 'https://jsonfeed.org/version/1.1',
    title,
    home_page_url: home,
    feed_url: address,
    authors: [{ name: author }],
    items: entries.map((entry) => ({
      id: entry.id,
      ...(entry.href === null ? {} : { url: entry.href }),
      title: entry.title,
      content_text: entry.summary,
      date_published: iso(entry.at),
    })),
  });
}
