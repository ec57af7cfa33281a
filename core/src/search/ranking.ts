import type { Scope } from '../model';

/** What is searched of an item, each with its weight: a word of the title says more than one in the text. */
export const FIELDS = ['title', 'source', 'tags', 'note', 'body'] as const;
export type SearchField = (typeof FIELDS)[number];

/** Common practice sets titles well above bodies; the figures were chosen on FOLDOC, see bench/search.mjs. */
export const FIELD_WEIGHTS: Readonly<Record<SearchField, number>> = {
  title: 8,
  source: 2,
  tags: 4,
  note: 2,
  body: 1,
};

export const SCOPE_FIELDS: Readonly<Record<Scope, readonly SearchField[]>> = {
  all: FIELDS,
  articles: ['title', 'source', 'body'],
  writing: ['tags', 'note'],
};

const K1 = 1.2;
const B = 0.75;
/** Where more than half of all texts have a term it still counts for a little. */
const MIN_IDF = 1e-6;

/**
 * How much one phrase adds to a text's score: Okapi BM25 over weighted frequencies, with the constants and the floor that
 * SQLite's FTS5 has (sqlite.org/fts5.html, "The bm25() function"), so that both engines rank alike.
 *
 * @param frequency how often the text has the phrase, each time by the weight of its field
 * @param idf from inverseDocumentFrequency
 * @param relativeLength the text's length over the mean
 */
export function bm25(frequency: number, idf: number, relativeLength: number): number {
  return (idf * (frequency * (K1 + 1))) / (frequency + K1 * (1 - B + B * relativeLength));
}

/** How rare a phrase is. @param all texts there are @param having texts that have it */
export function inverseDocumentFrequency(all: number, having: number): number {
  const idf = Math.log((all - having + 0.5) / (having + 0.5));
  return idf <= 0 ? MIN_IDF : idf;
}

const HALF_LIFE_MS = 180 * 86_400_000;
const RECENCY_RAISE = 0.1;

/** A mild prior for what was saved lately: at most a tenth more. Ours. */
export function withRecency(score: number, savedAt: number, now: number): number {
  return score * (1 + RECENCY_RAISE * 2 ** (-Math.max(0, now - savedAt) / HALF_LIFE_MS));
}
