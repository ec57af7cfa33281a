import type { PlainText } from './plain';
import type { TextRange } from './sentences';
import { wordsAbove } from './words';

/** A part of a text, from one heading to the next. */
export interface TextSection extends TextRange {
  /** Of its heading; empty for what stands before the first one. */
  title: string;
  /** Of its heading, 1 to 6; 1 for what stands before the first one. */
  level: number;
  words: number;
}

/**
 * The parts of a text by its headings, in order; together they are the whole text.
 *
 * @param starts from wordStarts
 */
export function sectionsOf({ text, blocks }: PlainText, starts: readonly number[]): TextSection[] {
  const begin = [{ title: '', level: 1, start: 0 }];
  for (const { element, start, end } of blocks) {
    const level = /^h([1-6])$/.exec(element.tagName)?.[1];
    if (level) begin.push({ title: text.slice(start, end), level: Number(level), start });
  }
  return begin
    .map((part, at) => {
      const end = begin[at + 1]?.start ?? text.length;
      return { ...part, end, words: wordsAbove(starts, end) - wordsAbove(starts, part.start) };
    })
    .filter(({ start, end }) => end > start);
}

/**
 * Where in a text a part of it begins at a heading, as fractions of its words; not at its very beginning.
 *
 * @param starts from wordStarts
 * @returns ascending, each more than 0 and less than 1
 */
export function headingFractions(plain: PlainText, starts: readonly number[]): number[] {
  const fractions = sectionsOf(plain, starts).map(({ start }) => wordsAbove(starts, start) / starts.length);
  return [...new Set(fractions)].filter((fraction) => fraction > 0 && fraction < 1);
}

/**
 * How many words of its part are still before the reader.
 *
 * @param parts from partsOf, of the whole text
 * @param fraction of all words that are passed, 0 to 1
 * @returns 0 at the end of the text
 */
export function wordsLeftInPart(parts: readonly TextSection[], fraction: number): number {
  const passed = fraction * parts.reduce((sum, { words }) => sum + words, 0);
  let end = 0;
  for (const { words } of parts) {
    end += words;
    if (end > passed) return end - passed;
  }
  return 0;
}
