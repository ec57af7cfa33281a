import type { WebArticle } from './articles';
import { escape, iso, type Publication as Page } from './page-parts';

/** What of a publication stands in its feed. */
type Publication = Pick<Page, 'host' | 'name' | 'path'>;

/** A publication's feed: where it stands, and how it is written. */
interface PublishedFeed {
  path: string;
  type: string;
  write(publication: Publication, articles: readonly WebArticle[], site: string): string;
}

const addressOf = (publication: Publication, article: WebArticle, site: string) =>
  `${site}${publication.path(article.slug)}`;

const atom: PublishedFeed = {
  path: '/atom.xml',
  type: 'application/atom+xml',
  write: (publication, articles, site) => `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom"><title>${escape(publication.name)}</title><id>${site}/</id>
<link rel="self" href="${site}/atom.xml"/><link href="${site}/"/>
${articles
  .map(
    (
      article,
    ) => `<entry><title type="text">${escape(article.title)}</title><id>${addressOf(publication, article, site)}</id>
<link rel="alternate" type="text/html" href="${publication.path(article.slug)}"/><published>${iso(article)}</published><updated>${iso(article)}</updated>
${article.author ? `<author><name>${escape(article.author)}</name></author>` : ''}<summary type="html">${escape(escape(article.standfirst || firstLine(article)))}</summary></entry>`,
  )
  .join('\n')}</feed>`,
};

/** Written by hand, as such feeds are: with bare ampersands, and text before the declaration. */
const rss: PublishedFeed = {
  path: '/rss.xml',
  type: 'application/rss+xml',
  write: (publication, articles, site) => `
<rss version="2.0"><channel><title>${publication.name}</title><link>${site}/</link><description>News & notes</description><ttl>60</ttl>
${articles
  .map(
    (
      article,
    ) => `<item><title>${article.title}</title><link>${addressOf(publication, article, site)}</link><pubDate>${article.publishedAt.toUTCString()}</pubDate>
<description><![CDATA[<p>${article.standfirst || firstLine(article)}</p>]]></description></item>`,
  )
  .join('\n')}</channel></rss>`,
};

const rdf: PublishedFeed = {
  path: '/index.rdf',
  type: 'application/rdf+xml',
  write: (publication, articles, site) => `<?xml version="1.0"?>
<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns="http://purl.org/rss/1.0/">
<channel rdf:about="${site}/index.rdf"><title>${escape(publication.name)}</title><link>${site}/</link></channel>
${articles
  .map(
    (
      article,
    ) => `<item rdf:about="${addressOf(publication, article, site)}"><title>${escape(article.title)}</title><link>${addressOf(publication, article, site)}</link>
<description>${escape(article.standfirst || firstLine(article))}</description><dc:creator>${escape(article.author)}</dc:creator><dc:date>${iso(article)}</dc:date></item>`,
  )
  .join('\n')}</rdf:RDF>`,
};

const json: PublishedFeed = {
  path: '/feed.json',
  type: 'application/feed+json',
  write: (publication, articles, site) =>
    JSON.stringify({
      version: 'https://jsonfeed.org/version/1.1',
      title: publication.name,
      home_page_url: `${site}/`,
      items: articles.map((article) => ({
        id: article.slug,
        url: addressOf(publication, article, site),
        title: article.title,
        summary: article.standfirst || firstLine(article),
        content_text: article.markdown.slice(0, 400),
        date_published: iso(article),
        ...(article.author ? { authors: [{ name: article.author }] } : {}),
      })),
    }),
};

const FEEDS: Readonly<Record<string, PublishedFeed>> = {
  tidewater: atom,
  jottings: atom,
  glass: rss,
  slipway: rss,
  chartroom: rdf,
  courier: json,
  lantern: json,
  daylog: atom,
  hide: rss,
  toolbench: json,
  nightwatch: atom,
};

export function feedOf(publication: Publication): PublishedFeed | undefined {
  return FEEDS[publication.host];
}

/** What a front page says of its feed, in its head. */
export function feedLink(publication: Publication): string {
  const feed = feedOf(publication);
  return feed ? `<link rel="alternate" type="${feed.type}" title="${publication.name}" href="${feed.path}">` : '';
}

function firstLine({ markdown }: WebArticle): string {
  const line = markdown.split('\n').find((each) => /^[\p{L}“"]/u.test(each)) ?? '';
  return line.replace(/[*_`]|\[([^\]]*)\]\([^)]*\)/g, '$1').slice(0, 220);
}
