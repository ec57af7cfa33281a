import type { Scope } from '../model';
import { partitionPoint } from '../text';
import { bm25, FIELD_WEIGHTS, FIELDS, inverseDocumentFrequency, SCOPE_FIELDS, type SearchField } from './ranking';
import type { Phrase, TermQuery } from './terms';

/** The terms of an item by field, with one space between two: what is stored, and what FTS5 is given on the server. */
export type FieldTerms = Readonly<Record<SearchField, string>>;

/**
 * An inverted index in memory, for one device's library. Incremental: what is put in is found at once.
 *
 *     vocabulary   term → number
 *     postings     term number → the texts that have it, with weighted frequencies
 *     tokens       text → its term numbers in order, field after field     (phrases are checked in it)
 *
 * A search costs the length of the postings of its terms; a phrase besides reads the texts that have all its terms.
 * What is taken out is only crossed out, and swept when it is a third of all.
 */
export interface SearchIndex {
  readonly size: number;
  has(id: string): boolean;
  /** Puts an item in, or in the place of its earlier state. */
  put(id: string, fields: FieldTerms): void;
  remove(id: string): void;
  /** Scores by id of what matches. */
  match(query: TermQuery): Map<string, number>;
  /** True when a text has a term that begins so. */
  knowsStart(start: string): boolean;
  /** Terms of the texts, each with how many have it. */
  termsBeginning(start: string): [term: string, texts: number][];
  termsAmong(terms: readonly string[]): [term: string, texts: number][];
}

interface Text {
  id: string;
  tokens: Uint32Array;
  /** Where each field ends in `tokens`. */
  ends: readonly number[];
  alive: boolean;
}

/** The texts that have a term, in the order in which they came. */
class Postings {
  texts = new Uint32Array(2);
  /** Weighted frequency in what others wrote. */
  articles = new Float32Array(2);
  /** The same in what the reader wrote: few terms have any. */
  writing: Map<number, number> | null = null;
  length = 0;
  /** How many of the texts are not crossed out. */
  alive = 0;

  add(text: number, articles: number, writing: number): void {
    if (this.length === this.texts.length) {
      const room = Math.ceil(this.length * 1.6) + 2;
      const texts = new Uint32Array(room);
      texts.set(this.texts);
      this.texts = texts;
      const frequencies = new Float32Array(room);
      frequencies.set(this.articles);
      this.articles = frequencies;
    }
    this.texts[this.length] = text;
    this.articles[this.length] = articles;
    if (writing > 0) (this.writing ??= new Map()).set(text, writing);
    this.length += 1;
    this.alive += 1;
  }

  frequency(at: number, scope: Scope): number {
    const articles = scope === 'writing' ? 0 : (this.articles[at] ?? 0);
    return scope === 'articles' || this.writing === null
      ? articles
      : articles + (this.writing.get(this.texts[at] ?? 0) ?? 0);
  }
}

const IS_WRITING = FIELDS.map((field) => SCOPE_FIELDS.writing.includes(field));
const WEIGHTS = FIELDS.map((field) => FIELD_WEIGHTS[field]);
/** Crossed-out texts are swept when they are this many, and more than half as many as the others. */
const SWEPT_FROM = 64;

export function createSearchIndex(): SearchIndex {
  let texts: Text[] = [];
  let byId = new Map<string, number>();
  let vocabulary = new Map<string, number>();
  let names: string[] = [];
  let postings: Postings[] = [];
  let totalLength = 0;
  /** All terms in order, for those that begin alike; `unsorted` came later. */
  let sorted: string[] = [];
  let unsorted: string[] = [];

  function numberOf(term: string): number {
    const known = vocabulary.get(term);
    if (known !== undefined) return known;
    const made = names.length;
    vocabulary.set(term, made);
    names.push(term);
    unsorted.push(term);
    postings.push(new Postings());
    return made;
  }

  function put(id: string, fields: FieldTerms): void {
    remove(id);
    const parts = FIELDS.map((field) => (fields[field] === '' ? [] : fields[field].split(' ')));
    const tokens = new Uint32Array(parts.reduce((sum, part) => sum + part.length, 0));
    const ends: number[] = [];
    const articles = new Map<number, number>();
    const writing = new Map<number, number>();
    let at = 0;
    parts.forEach((part, field) => {
      const into = IS_WRITING[field] ? writing : articles;
      const weight = WEIGHTS[field] ?? 1;
      for (const term of part) {
        const number = numberOf(term);
        tokens[at++] = number;
        into.set(number, (into.get(number) ?? 0) + weight);
      }
      ends.push(at);
    });
    const place = texts.length;
    texts.push({ id, tokens, ends, alive: true });
    byId.set(id, place);
    totalLength += tokens.length;
    for (const [number, frequency] of articles) postings[number]?.add(place, frequency, writing.get(number) ?? 0);
    for (const [number, frequency] of writing) if (!articles.has(number)) postings[number]?.add(place, 0, frequency);
  }

  function remove(id: string): void {
    const place = byId.get(id);
    const text = place === undefined ? undefined : texts[place];
    if (!text) return;
    byId.delete(id);
    text.alive = false;
    totalLength -= text.tokens.length;
    for (const number of new Set(text.tokens)) {
      const of = postings[number];
      if (of) of.alive -= 1;
    }
    const dead = texts.length - byId.size;
    if (dead >= SWEPT_FROM && dead > byId.size / 2) sweep();
  }

  function sweep(): void {
    const kept = texts.filter(({ alive }) => alive);
    const words = names;
    texts = [];
    byId = new Map();
    vocabulary = new Map();
    names = [];
    postings = [];
    sorted = [];
    unsorted = [];
    totalLength = 0;
    for (const { id, tokens, ends } of kept) {
      const fields = FIELDS.map((field, index) => {
        const part = tokens.subarray(index === 0 ? 0 : ends[index - 1], ends[index]);
        return [field, Array.from(part, (number) => words[number]).join(' ')];
      });
      put(id, Object.fromEntries(fields) as Record<SearchField, string>);
    }
  }

  /** The terms that begin so and that a text has. */
  function starting(start: string): number[] {
    if (unsorted.length > 2000) {
      sorted = [...sorted, ...unsorted].sort((a, b) => (a < b ? -1 : 1));
      unsorted = [];
    }
    const found = unsorted.filter((term) => term.startsWith(start));
    const first = partitionPoint(sorted.length, (at) => (sorted[at] ?? '') >= start);
    for (let at = first; sorted[at]?.startsWith(start); at++) found.push(sorted[at] ?? '');
    return found.map((term) => vocabulary.get(term) ?? -1).filter((number) => (postings[number]?.alive ?? 0) > 0);
  }

  function counted(numbers: readonly number[]): [term: string, texts: number][] {
    return numbers
      .map((number): [string, number] => [names[number] ?? '', postings[number]?.alive ?? 0])
      .filter(([, texts]) => texts > 0);
  }

  /** Weighted frequencies of a phrase by text. */
  function frequencies(phrase: Phrase, scope: Scope): Map<number, number> {
    const found = new Map<number, number>();
    const last = phrase.terms.at(-1) ?? '';
    const ends = phrase.prefix ? starting(last) : [vocabulary.get(last) ?? -1];
    if (phrase.terms.length === 1) {
      for (const number of ends) {
        const of = postings[number];
        for (let at = 0; of && at < of.length; at++) {
          const text = of.texts[at] ?? 0;
          if (!texts[text]?.alive) continue;
          const frequency = of.frequency(at, scope);
          if (frequency > 0) found.set(text, (found.get(text) ?? 0) + frequency);
        }
      }
      return found;
    }
    const first = phrase.terms.slice(0, -1).map((term) => vocabulary.get(term) ?? -1);
    if (first.includes(-1)) return found;
    const lasts = new Set(ends);
    const rarest = first.reduce((a, b) => ((postings[a]?.alive ?? 0) <= (postings[b]?.alive ?? 0) ? a : b));
    const candidates = postings[rarest];
    for (let at = 0; candidates && at < candidates.length; at++) {
      const place = candidates.texts[at] ?? 0;
      const text = texts[place];
      if (!text?.alive) continue;
      const frequency = phraseFrequency(text, first, lasts, scope);
      if (frequency > 0) found.set(place, frequency);
    }
    return found;
  }

  function match(query: TermQuery): Map<string, number> {
    const scores = new Map<number, number>();
    const partsHad = new Map<number, number>();
    const meanLength = totalLength / byId.size || 1;
    for (const part of query.parts) {
      const had = new Set<number>();
      for (const phrase of part) {
        const found = frequencies(phrase, query.scope);
        const idf = inverseDocumentFrequency(byId.size, found.size);
        for (const [place, frequency] of found) {
          const relativeLength = (texts[place]?.tokens.length ?? 0) / meanLength;
          scores.set(place, (scores.get(place) ?? 0) + bm25(frequency, idf, relativeLength));
          had.add(place);
        }
      }
      for (const place of had) partsHad.set(place, (partsHad.get(place) ?? 0) + 1);
    }
    const wanted = query.mode === 'all' ? query.parts.length : 1;
    const matched = new Map<string, number>();
    for (const [place, score] of scores)
      if ((partsHad.get(place) ?? 0) >= wanted) matched.set(texts[place]?.id ?? '', score);
    return matched;
  }

  return {
    get size() {
      return byId.size;
    },
    has: (id) => byId.has(id),
    put,
    remove,
    match,
    knowsStart: (start) => starting(start).length > 0,
    termsBeginning: (start) => counted(starting(start)),
    termsAmong: (terms) => counted(terms.flatMap((term) => vocabulary.get(term) ?? [])),
  };
}

/** How often a phrase stands in a text, each time by its field's weight; a phrase does not go from one field into the next. */
function phraseFrequency(text: Text, first: readonly number[], lasts: ReadonlySet<number>, scope: Scope): number {
  let frequency = 0;
  let start = 0;
  text.ends.forEach((end, field) => {
    const counts = scope === 'all' || (scope === 'writing') === IS_WRITING[field];
    if (counts)
      for (let at = start; at + first.length < end; at++)
        if (
          lasts.has(text.tokens[at + first.length] ?? -1) &&
          first.every((number, index) => text.tokens[at + index] === number)
        )
          frequency += WEIGHTS[field] ?? 1;
    start = end;
  });
  return frequency;
}
