import type { Highlight } from '../model';
import { countWords } from '../text';

/** Characters to a word, spaces counted, where a passage is too short to tell. */
const USUAL = 6;
/** A sample of fewer words says little about the whole. */
const TELLING_WORDS = 12;

/**
 * About where highlights stand in their text, when the text itself is not at hand: how long it is, is worked out from its
 * words, and from how long words are in what is marked and what stands around it.
 *
 * @param wordCount of the whole text
 * @returns fractions of the text, 0 to 1, ascending; none for a highlight whose offset is not known
 */
export function knotsOf(highlights: readonly Highlight[], wordCount: number, language: string | null): number[] {
  const passages = highlights.map(({ choices }) => choices.passage.value);
  const sample = passages.map(({ prefix, exact, suffix }) => prefix + exact + suffix).join(' ');
  const words = countWords(sample, language);
  const length = wordCount * (words < TELLING_WORDS ? USUAL : sample.length / words);
  if (length === 0) return [];
  return passages.flatMap(({ start }) => (start === null ? [] : [Math.min(1, start / length)])).sort((a, b) => a - b);
}
