import type { PageFacts } from '../model';

/** What a page says of itself when nothing is said but what is named: a text of ten minutes that came through whole. */
export function pageFrom(known: Partial<PageFacts> = {}): PageFacts {
  return {
    title: 'T',
    authors: [],
    siteName: null,
    publishedAt: null,
    modifiedAt: null,
    licenceUrl: null,
    facts: [],
    language: 'en',
    excerpt: null,
    wordCount: 1,
    minutes: 10,
    pictureCount: 0,
    thumbnail: null,
    icon: null,
    copyId: null,
    pictures: [],
    cameThrough: { verdict: 'whole', signs: [] },
    ...known,
  };
}
