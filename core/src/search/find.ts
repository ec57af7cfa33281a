import type { Scope, SearchResult } from '../model';
import { baseLanguage } from '../text';
import { type ItemFacts, passes } from './facts';
import type { QueryWord, SearchQuery } from './query';
import { withRecency } from './ranking';
import { nearestTerms, withOtherStart } from './spelling';
import { type Alternatives, alternativesOf, type TermQuery } from './terms';

/** Terms, each with how many texts have it. */
export type CountedTerms = readonly (readonly [term: string, texts: number])[];

/** What can be asked of an index, on the device or on the server. */
export interface TermSource {
  match(query: TermQuery): ReadonlyMap<string, number> | Promise<ReadonlyMap<string, number>>;
  knowsStart(start: string): boolean | Promise<boolean>;
  termsBeginning(start: string): CountedTerms | Promise<CountedTerms>;
  /** Those of some terms that a text has. */
  termsAmong(terms: readonly string[]): CountedTerms | Promise<CountedTerms>;
}

type Hits = readonly { id: string; score: number }[];

export interface Found {
  by: SearchResult['by'];
  hits: Hits;
  /** What has only some of the words, the best of it, where others have all: a word may be another than the text's. */
  also: Hits;
  /** What the hits were found by, for marking it in their texts. */
  marks: readonly Alternatives[];
}

/** As precise as two ways of adding up the same numbers are alike. */
const SCORE_DIGITS = 6;

/**
 * Finds items: the one ranking for the index on the device and for the one on the server.
 *
 * @param facts of all items, by id
 * @param now in milliseconds since 1970; what was saved lately is a little nearer the top
 */
export async function find(
  query: SearchQuery,
  scope: Scope,
  source: TermSource,
  facts: ReadonlyMap<string, ItemFacts>,
  now: number,
): Promise<Found> {
  const languages = languagesOf(facts.values());
  const wanted = query.words
    .filter(({ not }) => !not)
    .map(({ strict, ...word }) => ({ strict, any: alternativesOf(word, languages) }));
  const unwanted = await idsWithExcludedWords(query.words, languages, scope, source);
  const isLeft = (id: string) => {
    const of = facts.get(id);
    return of !== undefined && !unwanted.has(id) && passes(of, query.filters);
  };
  const known = wanted.filter(({ any }) => any.length > 0);
  const parts = await withShorterStems(
    known.map(({ any }) => any),
    source,
  );
  if (parts.length === 0)
    // Only what cannot be looked for, such as a lone sign, finds nothing; no words at all leave the choice to the filters.
    return { by: 'all', hits: wanted.length > 0 ? [] : newestFirst(facts, isLeft), also: [], marks: [] };
  const ranked = async (of: readonly Alternatives[], mode: TermQuery['mode']) =>
    rank(await source.match({ parts: of, mode, scope }), isLeft, facts, now);
  const strict = parts.filter((_, at) => known[at]?.strict);
  const someOf = async (of: readonly Alternatives[], but: Hits): Promise<Hits> => {
    if (of.length < 2) return [];
    const any = await ranked(of, 'any');
    const must = strict.length > 0 ? await source.match({ parts: strict, mode: 'all', scope }) : null;
    const taken = new Set(but.map(({ id }) => id));
    return any.filter(({ id }) => !taken.has(id) && (must?.has(id) ?? true));
  };
  const all = await ranked(parts, 'all');
  if (all.length > 0) return { by: 'all', hits: all, also: bestOf(await someOf(parts, all)), marks: parts };
  const respelled = await withNearTerms(parts, scope, source);
  if (respelled) {
    const near = await ranked(respelled, 'all');
    if (near.length > 0)
      return { by: 'near', hits: near, also: bestOf(await someOf(respelled, near)), marks: respelled };
  }
  if (parts.length === 1) return { by: 'all', hits: [], also: [], marks: parts };
  return { by: 'some', hits: await someOf(parts, []), also: [], marks: parts };
}

/** Of what has only some of it, no more than a reader looks through, and nothing that has far less than the best. */
const MOST_ALSO = 50;
const LEAST_OF_BEST = 0.3;

function bestOf(hits: Hits): Hits {
  const least = LEAST_OF_BEST * (hits[0]?.score ?? 0);
  return hits.slice(0, MOST_ALSO).filter(({ score }) => score >= least);
}

/** The base languages of the items, in alphabetical order. */
export function languagesOf(facts: Iterable<ItemFacts>): string[] {
  const found = new Set<string>();
  for (const { language } of facts) found.add(baseLanguage(language));
  return [...found].sort();
}

async function idsWithExcludedWords(
  words: readonly QueryWord[],
  languages: readonly string[],
  scope: Scope,
  source: TermSource,
): Promise<ReadonlySet<string>> {
  const ids = new Set<string>();
  for (const word of words.filter(({ not }) => not)) {
    const part = alternativesOf(word, languages);
    if (part.length === 0) continue;
    for (const id of (await source.match({ parts: [part], mode: 'any', scope })).keys()) ids.add(id);
  }
  return ids;
}

function newestFirst(facts: ReadonlyMap<string, ItemFacts>, isLeft: (id: string) => boolean): Hits {
  return [...facts.values()]
    .filter(({ id }) => isLeft(id))
    .sort((a, b) => b.savedAt - a.savedAt || (a.id < b.id ? -1 : 1))
    .map(({ id }) => ({ id, score: 0 }));
}

function rank(
  scores: ReadonlyMap<string, number>,
  isLeft: (id: string) => boolean,
  facts: ReadonlyMap<string, ItemFacts>,
  now: number,
): Hits {
  const savedAt = (id: string) => facts.get(id)?.savedAt ?? 0;
  const hits: { id: string; score: number }[] = [];
  for (const [id, score] of scores)
    if (isLeft(id)) hits.push({ id, score: Number(withRecency(score, savedAt(id), now).toPrecision(SCORE_DIGITS)) });
  return hits.sort((a, b) => b.score - a.score || savedAt(b.id) - savedAt(a.id) || (a.id < b.id ? -1 : 1));
}

/** "dredgin", half typed, is longer than "dredg", the stem of dredging: where no term begins so, a shorter one may be meant. */
async function withShorterStems(parts: readonly Alternatives[], source: TermSource): Promise<readonly Alternatives[]> {
  return Promise.all(
    parts.map(async (part) => {
      const start = part.find(({ prefix, terms }) => prefix && terms.length === 1)?.terms[0];
      if (start === undefined || start.length < 4 || (await source.knowsStart(start))) return part;
      const shorter = [1, 2, 3]
        .map((less) => start.slice(0, -less))
        .filter((each) => each.length >= 3)
        .map((term) => ({ terms: [term], prefix: false }));
      return [...part, ...shorter];
    }),
  );
}

/** The terms spelled most like some words. Not all there are are gone through: of ten thousand texts that takes the better part of a second. */
async function nearTerms(words: readonly string[], source: TermSource): Promise<string[]> {
  const starts = [...new Set(words.map(([first = '']) => first))];
  const [others, ...alike] = await Promise.all([
    source.termsAmong(words.flatMap(withOtherStart)),
    ...starts.map((start) => source.termsBeginning(start)),
  ]);
  return nearestTerms(words, [...others, ...alike.flat()]);
}

/** Reads each part that nothing has as the terms spelled most like it; null when there are none. */
async function withNearTerms(
  parts: readonly Alternatives[],
  scope: Scope,
  source: TermSource,
): Promise<readonly Alternatives[] | null> {
  let changed = false;
  const respelled: Alternatives[] = [];
  for (const part of parts) {
    const known = await source.match({ parts: [part], mode: 'any', scope });
    const single = part.filter(({ terms }) => terms.length === 1).flatMap(({ terms }) => terms);
    const near = known.size > 0 ? [] : await nearTerms(single, source);
    if (near.length > 0) changed = true;
    respelled.push(near.length > 0 ? near.map((term) => ({ terms: [term], prefix: false })) : part);
  }
  return changed ? respelled : null;
}
