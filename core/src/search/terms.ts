import type { Scope } from '../model';
import type { QueryWord } from './query';
import { isUnspaced, searchTerms } from './words';

/** Terms that follow one another; of the last, with `prefix`, only the beginning is meant. */
export interface Phrase {
  terms: readonly string[];
  prefix: boolean;
}

/** Phrases of which any will do. */
export type Alternatives = readonly Phrase[];

/** What is looked for, in the index's own terms. */
export interface TermQuery {
  parts: readonly Alternatives[];
  /** Whether an item has to have all parts or any of them. */
  mode: 'all' | 'any';
  scope: Scope;
}

/**
 * A word of a query in the terms of texts: its stem in each language of the library, for nobody says in which language
 * they ask. Empty when nothing of it can be looked for.
 *
 * @param languages base languages of the library's texts
 */
export function alternativesOf(word: Pick<QueryWord, 'text' | 'prefix'>, languages: readonly string[]): Alternatives {
  const found = new Map<string, Phrase>();
  const add = (terms: readonly string[], prefix: boolean) => {
    if (terms.length > 0) found.set(`${terms.join(' ')}${prefix ? '*' : ''}`, { terms, prefix });
  };
  const last = Array.from(word.text).at(-1) ?? '';
  for (const language of languages.length > 0 ? languages : ['en']) {
    const terms = searchTerms(word.text, language);
    if (!isUnspaced(last)) add(terms, false);
    // The last character of a run stands as a term of its own only where the run ends; a query may end in the midst of one.
    else if (terms.length > 1) add(terms.slice(0, -1), false);
    else add(terms, true);
  }
  if (word.prefix) {
    // A stem may be shorter than what is typed of its word; in the language of no stems the beginning stays as it is.
    const terms = searchTerms(word.text, 'und');
    if (!isUnspaced(last)) add(terms, true);
  }
  return [...found.values()];
}
