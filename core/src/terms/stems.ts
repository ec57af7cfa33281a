import { LRUCache } from 'lru-cache';
import { newStemmer } from 'snowball-stemmers';

/** Snowball's algorithms (snowballstem.org) by ISO 639-1 code. */
const ALGORITHMS: Readonly<Record<string, string>> = {
  da: 'danish',
  de: 'german',
  en: 'english',
  es: 'spanish',
  fi: 'finnish',
  fr: 'french',
  hu: 'hungarian',
  it: 'italian',
  nb: 'norwegian',
  nl: 'dutch',
  no: 'norwegian',
  pt: 'portuguese',
  ro: 'romanian',
  ru: 'russian',
  sv: 'swedish',
  tr: 'turkish',
};

/** Most words of a text have been met before, and stemming one takes twenty times as long as looking it up. */
const MAX_STEMS = 50_000;

const known = new Map<string, (word: string) => string>();

/** What brings a word, in small letters, to its stem; languages without an algorithm keep their words. */
export function stemmerOf(language: string): (word: string) => string {
  const found = known.get(language);
  if (found) return found;
  const algorithm = ALGORITHMS[language];
  const stemmer = algorithm === undefined ? null : newStemmer(algorithm);
  const stem = stemmer ? remembering((word) => stemmer.stem(word)) : (word: string) => word;
  known.set(language, stem);
  return stem;
}

function remembering(stem: (word: string) => string): (word: string) => string {
  const stems = new LRUCache<string, string>({ max: MAX_STEMS });
  return (word) => {
    const known = stems.get(word);
    if (known !== undefined) return known;
    const made = stem(word);
    stems.set(word, made);
    return made;
  };
}
