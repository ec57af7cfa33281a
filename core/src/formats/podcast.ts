import type { Element } from 'domhandler';
import { element, xmlDocument } from './xml-write';

/** What a podcast says of one of its sounds. */
export interface PodcastEpisode {
  /** Never changes, whatever happens to the item's title. */
  id: string;
  title: string;
  /** Who wrote it, and where it stands. */
  source: string;
  /** Of the page itself. */
  link: string | null;
  summary: string;
  /** Instant at which it came into the podcast, in milliseconds since 1970. */
  publishedAt: number;
  address: string;
  bytes: number;
  seconds: number;
  chaptersAddress: string | null;
}

/**
 * A podcast as RSS 2.0 with enclosures (rssboard.org, 2.0.11), with the elements that podcast apps read besides: those of the
 * iTunes namespace, and the chapters of the open podcast namespace (podcastindex.org/namespace/1.0). It asks not to be listed
 * anywhere: it is one reader's own.
 */
export function podcastFeed(
  podcast: { title: string; about: string; link: string; address: string; language: string },
  episodes: readonly PodcastEpisode[],
): string {
  const channel = element('channel', {}, [
    element('title', {}, podcast.title),
    element('link', {}, podcast.link),
    element('description', {}, podcast.about),
    element('language', {}, podcast.language),
    element('atom:link', { href: podcast.address, rel: 'self', type: 'application/rss+xml' }),
    element('itunes:block', {}, 'Yes'),
    element('itunes:explicit', {}, 'false'),
    element('itunes:type', {}, 'episodic'),
    ...episodes.map(item),
  ]);
  const root = element(
    'rss',
    {
      version: '2.0',
      'xmlns:atom': 'http://www.w3.org/2005/Atom',
      'xmlns:itunes': 'http://www.itunes.com/dtds/podcast-1.0.dtd',
      'xmlns:podcast': 'https://podcastindex.org/namespace/1.0',
    },
    [channel],
  );
  return xmlDocument(root);
}

function item(episode: PodcastEpisode): Element {
  const { chaptersAddress } = episode;
  return element('item', {}, [
    element('title', {}, episode.title),
    ...(episode.link ? [element('link', {}, episode.link)] : []),
    element('guid', { isPermaLink: 'false' }, episode.id),
    element('pubDate', {}, new Date(episode.publishedAt).toUTCString()),
    element('description', {}, [episode.source, episode.summary].filter(Boolean).join('\n\n')),
    element('enclosure', { url: episode.address, length: String(episode.bytes), type: 'audio/mpeg' }),
    element('itunes:author', {}, episode.source),
    element('itunes:duration', {}, String(Math.round(episode.seconds))),
    ...(chaptersAddress
      ? [element('podcast:chapters', { url: chaptersAddress, type: 'application/json+chapters' })]
      : []),
  ]);
}
