import { partitionPoint } from './partition-point';
import type { TextRange } from './sentences';

/** Scripts written without spaces between words. */
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
/** All of those scripts stand behind Thai in Unicode; most texts have nothing from there. */
const FROM_THAI_ON = /[\u0e00-\u1fff\u2e80-\uffff]/;
const TOKEN_WITH_A_WORD = /[\p{L}\p{N}]/u;

/**
 * The words of a text, as reading research counts them: what stands between spaces and holds a letter or a
 * digit; in scripts without spaces, the words that Intl.Segmenter finds (Unicode UAX #29 with dictionaries).
 *
 * @returns the offset of each word's first character, ascending.
 */
export function wordStarts(text: string, language: string | null): number[] {
  const starts: number[] = [];
  const mayBeUnspaced = FROM_THAI_ON.test(text);
  for (const token of text.matchAll(/\S+/gu)) {
    if (!TOKEN_WITH_A_WORD.test(token[0])) continue;
    if (!mayBeUnspaced || !UNSPACED.test(token[0])) {
      starts.push(token.index);
      continue;
    }
    for (const part of segmenter(language).segment(token[0])) {
      if (part.isWordLike) starts.push(token.index + part.index);
    }
  }
  return starts;
}

/** How many words a text has; see wordStarts. */
export function countWords(text: string, language: string | null): number {
  return wordStarts(text, language).length;
}

/**
 * The fraction of a text's words that stand wholly above a place.
 *
 * @param starts from wordStarts
 * @param offset a place in the same text
 * @returns 0 to 1; 0 for a text without words
 */
export function fractionAbove(starts: readonly number[], offset: number): number {
  return starts.length === 0 ? 0 : wordsAbove(starts, offset) / starts.length;
}

/** How many of a text's words stand wholly above a place. @param starts from wordStarts */
export function wordsAbove(starts: readonly number[], offset: number): number {
  return partitionPoint(starts.length, (at) => (starts[at] ?? 0) >= offset);
}

/** How much of a text, by its words, stands in some parts of it. @param starts from wordStarts @returns 0 to 1 */
export function fractionIn(parts: readonly TextRange[], starts: readonly number[]): number {
  const words = parts.reduce((sum, { start, end }) => sum + wordsAbove(starts, end) - wordsAbove(starts, start), 0);
  return starts.length === 0 ? 0 : Math.min(1, words / starts.length);
}

const segmenters = new Map<string, Intl.Segmenter>();

function segmenter(language: string | null): Intl.Segmenter {
  const locale = supported(language) ?? 'en';
  const known = segmenters.get(locale);
  if (known) return known;
  const made = new Intl.Segmenter(locale, { granularity: 'word' });
  segmenters.set(locale, made);
  return made;
}

function supported(language: string | null): string | undefined {
  if (language === null) return undefined;
  try {
    return Intl.Segmenter.supportedLocalesOf(language)[0];
  } catch {
    // A page may declare any string as its language; one that is no BCP 47 tag throws here.
    return undefined;
  }
}
