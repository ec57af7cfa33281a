import escape from 'escape-html';
import { readFeed } from '../formats';
import { type Findings, type Found, UNSAID } from './found';

/** More entries than any archive of one reader has. */
const MOST = 50_000;

/**
 * What an archive that is written as a feed has (JSON Feed 1.1; Atom, RFC 4287; RSS 2.0): its pages, with their texts where it has
 * them, and the days on which they were published.
 *
 * @returns null when it is no feed
 */
export function foundInFeed(source: string): Findings | null {
  const feed = readFeed(source, 'https://file.invalid/', { most: MOST, withContent: true });
  if (!feed) return null;
  const found = feed.entries.map(({ address, title, authors, publishedAt, content }): Found => {
    const name = `${title ?? 'Without a title'}.html`;
    const by = authors.map((author) => `<meta name="author" content="${escape(author)}">`).join('');
    const dated = publishedAt ? `<meta property="article:published_time" content="${escape(publishedAt)}">` : '';
    const head = `<meta charset="utf-8"><title>${escape(title ?? '')}</title>${by}${dated}`;
    return {
      ...UNSAID,
      address: address?.startsWith('https://file.invalid/') ? null : address,
      title,
      savedAt: publishedAt === null ? null : Date.parse(publishedAt) || null,
      text:
        content === undefined
          ? null
          : {
              type: 'text/html',
              name,
              body: `<!doctype html><html><head>${head}</head><body><article><h1>${escape(title ?? '')}</h1>${content}</article></body></html>`,
            },
    };
  });
  return {
    found: found.filter(({ address, text }) => address !== null || text !== null),
    faults: found.length > 0 ? [] : [{ written: '', says: 'There is nothing in that feed.' }],
  };
}
