import { z } from 'zod';
import { baseLanguage, elementsIn, headingFractions, type PlainText, wordStarts } from '../text';
import { keyPhrases, type PhraseSurroundings } from './key-phrases';
import { sketchOf } from './sketch';
import { stemmerOf } from './stems';
import { stopWordsOf } from './stop-words';
import { isUnspaced, plainWord, wordsIn } from './words';

/**
 * What a text speaks of: its words by stem, without those that every text has, and the pairs of
 * neighbours among them, which say more than the words alone. Small beside the text, so that a whole library of profiles fits where its texts would not.
 */
export const TermProfile = z.object({
  /** How many words it was made from, stop words left out. */
  length: z.number().int().nonnegative(),
  /** The terms of the title. */
  title: z.array(z.string()),
  /** `[term, count, as it stands in the text]`, heaviest first. A phrase is two stems with a space between. */
  terms: z.array(z.tuple([z.string(), z.number().positive(), z.string()])),
  /** Its names and terms, `[key, form, count, salience]`, those that it makes most of first; see keyPhrases. */
  phrases: z.array(z.tuple([z.string(), z.string(), z.number().positive(), z.number().positive()])),
  /** Where parts of it begin, as fractions of its words; see headingFractions. */
  parts: z.array(z.number()),
  /** How it goes, word for word; see sketchOf. */
  sketch: z.array(z.number().int().nonnegative()),
});
export type TermProfile = z.infer<typeof TermProfile>;

/** Goes up when profiles are made otherwise: those of before are then made again. */
export const PROFILE_VERSION = 4;

/** A word of the title says more about a text than one inside it. Common practice; 3 was best on FOLDOC. */
const TITLE_WEIGHT = 3;
/** The tail of a long text's words adds little and costs much. */
const MAX_TERMS = 400;
interface Seen {
  count: number;
  /** Forms by how often they stand in the text: the commonest is what the reader is shown. */
  forms: Map<string, number>;
}

/**
 * The profile of a text.
 *
 * @param text plain text
 * @param title of the text; null when it has none
 * @param language BCP 47 tag, or null when not known
 * @param shown where its headings stand, and what is pointed out in it
 */
export function termProfile(
  text: string,
  title: string | null,
  language: string | null,
  shown: Pick<PhraseSurroundings, 'headings' | 'pointedOut'> = {},
): TermProfile {
  const base = baseLanguage(language);
  const seen = new Map<string, Seen>();
  const pairs = new Map<string, Seen>();
  const length = count(text, base, 1, seen, pairs);
  if (title !== null) count(title, base, TITLE_WEIGHT, seen, pairs);
  const terms = [...seen, ...pairs]
    .map(([term, { count: times, forms }]): [string, number, string] => [term, times, commonest(forms)])
    .sort((a, b) => b[1] - a[1] || Number(a[0].includes(' ')) - Number(b[0].includes(' ')))
    .slice(0, MAX_TERMS);
  const phrases = keyPhrases(text, { title, language, ...shown });
  return {
    length,
    title: title === null ? [] : termsOfTitle(title, language),
    terms,
    parts: [],
    sketch: sketchOf(text, language),
    phrases: phrases.map(({ key, form, count, salience }) => [key, form, count, salience]),
  };
}

/** The terms of a title, each once. */
export function termsOfTitle(title: string, language: string | null): string[] {
  const terms = new Map<string, Seen>();
  count(title, baseLanguage(language), 1, terms, new Map());
  return [...terms.keys()];
}

const POINTS_OUT = /^(?:a|em|strong|i|b|q|dfn|cite)$/;
/** What is longer points out a sentence, not a term. */
const MAX_POINTED_OUT = 60;

/** Where a clean tree's text has headings, and what is pointed out in it by a link or by emphasis. */
export function shownIn(plain: PlainText): Required<Pick<PhraseSurroundings, 'headings' | 'pointedOut'>> {
  const headings = plain.blocks.filter(({ element }) => /^h[1-6]$/.test(element.tagName));
  const pointedOut = plain.blocks.flatMap((block) =>
    elementsIn(block).filter(
      ({ element, start, end }) => POINTS_OUT.test(element.tagName) && end - start <= MAX_POINTED_OUT,
    ),
  );
  return { headings, pointedOut };
}

/** The profile of a clean tree's text, in which what is shown to be important counts more. */
export function profileOf(plain: PlainText, title: string | null, language: string | null): TermProfile {
  const parts = headingFractions(plain, wordStarts(plain.text, language));
  return { ...termProfile(plain.text, title, language, shownIn(plain)), parts };
}

/** Counts the words of a text and its pairs of neighbours. @returns how many words counted */
function count(
  text: string,
  language: string,
  weight: number,
  words: Map<string, Seen>,
  pairs: Map<string, Seen>,
): number {
  const stem = stemmerOf(language);
  const stopWords = stopWordsOf(language);
  let length = 0;
  let before: { stem: string; form: string; end: number } | null = null;
  for (const { form, start, end } of wordsIn(text, language)) {
    const plain = plainWord(form);
    if (stopWords.has(plain) || !/\p{L}/u.test(plain) || plain.length < (isUnspaced(plain) ? 1 : 2)) {
      before = null;
      continue;
    }
    const term = stem(plain);
    length += 1;
    note(words, term, plain, weight);
    // Neighbours with only a space or a hyphen between them.
    if (before && /^[\s\u00ad-]$/u.test(text.slice(before.end, start)))
      note(pairs, `${before.stem} ${term}`, `${before.form} ${plain}`, weight);
    before = { stem: term, form: plain, end };
  }
  return length;
}

function note(into: Map<string, Seen>, term: string, form: string, weight: number): void {
  const known = into.get(term);
  if (known) {
    known.count += weight;
    known.forms.set(form, (known.forms.get(form) ?? 0) + 1);
  } else into.set(term, { count: weight, forms: new Map([[form, 1]]) });
}

function commonest(forms: Map<string, number>): string {
  let best = '';
  let most = 0;
  for (const [form, times] of forms)
    if (times > most || (times === most && form.length < best.length)) {
      best = form;
      most = times;
    }
  return best;
}
