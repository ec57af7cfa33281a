import { getElementsByTagName } from 'domutils';
import { attributeOf, parseLooseHtml } from './xml';

const FEED_TYPE = /^application\/(?:(?:rss|atom|rdf)\+xml|feed\+json)$/i;
/** A type that other things have too. */
const PERHAPS_FEED = /^(?:application\/(?:json|xml)|text\/xml)$/i;

/**
 * The feeds that a page names (RSS Advisory Board, "RSS Autodiscovery"; RFC 4287 and JSON Feed name theirs in the same
 * way), the most likely one first: feeds of comments stand last.
 *
 * @param html of the page
 * @param url of the page
 */
export function feedsOfPage(html: string, url: string): { address: string; title: string | null }[] {
  const document = parseLooseHtml(html);
  const [stated] = getElementsByTagName('base', document, true, 1);
  const href = stated ? attributeOf(stated, 'href') : null;
  const base = href !== null && URL.canParse(href, url) ? new URL(href, url).href : url;
  const found = getElementsByTagName('link', document).flatMap((link) => {
    const rel = (attributeOf(link, 'rel') ?? '').toLowerCase().split(/\s+/);
    const type = attributeOf(link, 'type') ?? '';
    const href = attributeOf(link, 'href');
    const title = attributeOf(link, 'title');
    const named =
      (rel.includes('alternate') && FEED_TYPE.test(type)) ||
      (rel.includes('alternate') && PERHAPS_FEED.test(type) && /feed|rss|atom/i.test(`${href} ${title}`)) ||
      (rel.includes('feed') && !rel.includes('stylesheet'));
    if (!named || !href || !URL.canParse(href, base)) return [];
    const address = new URL(href, base);
    return /^https?:$/.test(address.protocol) ? [{ address: address.href, title }] : [];
  });
  const ofComments = ({ address, title }: (typeof found)[number]) => /comment/i.test(`${address} ${title ?? ''}`);
  return [...found.filter((each) => !ofComments(each)), ...found.filter(ofComments)];
}
