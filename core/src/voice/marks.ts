import type { WordHeard } from './queues';

/** A place in what was said, and when it is heard. */
export interface WordMark {
  /** Offset in the text that was asked for, in UTF-16 units. */
  offset: number;
  /** From the start of the sound, in milliseconds. */
  atMs: number;
}

/** How far ahead the two are looked through for a word that both have. */
const LOOK_AHEAD = 14;

/** A word as it is compared: without case, accents and the form of its apostrophe; the engine drops some of them. */
const plain = (word: string): string =>
  word.replace(/\\.*$/u, '').normalize('NFD').replace(/\p{M}/gu, '').replaceAll('’', "'").toLowerCase();

/** The words of a text, with their places. */
export function wordsOf(text: string): { offset: number; form: string }[] {
  return [...text.matchAll(/[\p{L}\p{N}\p{M}]+(?:['’][\p{L}\p{M}]+)*/gu)].map(({ 0: form, index }) => ({
    offset: index,
    form,
  }));
}

/**
 * When each word of a text is heard. The engine says some words otherwise than they are written (numbers, letters, signs):
 * those stand between two that both have, and share the time between them.
 *
 * @param heard the words as the engine took them, in the order of time
 * @param msOf the time of a frame
 * @param endMs when the last sound ends
 * @returns one mark for each word of the text, never going back
 */
export function marksOf(
  text: string,
  heard: readonly WordHeard[],
  msOf: (frame: number) => number,
  endMs: number,
): WordMark[] {
  const words = wordsOf(text).map(({ offset, form }) => ({ offset, plain: plain(form) }));
  const forms = heard.map(({ form }) => plain(form));
  const marks: WordMark[] = [];
  const timeOf = (at: number) => (at < heard.length ? msOf(heard[at]?.frame ?? 0) : endMs);
  let at = 0;
  let word = 0;
  while (word < words.length) {
    const [skipHeard, skipWords] = nextInBoth(forms, at, words, word);
    const from = timeOf(at);
    const to = timeOf(at + skipHeard);
    for (let n = 0; n < skipWords; n += 1) {
      // One word for one, where as many were said as are written; else they share what there is.
      const ms = skipHeard === skipWords ? timeOf(at + n) : from + ((to - from) * n) / skipWords;
      marks.push({ offset: words[word + n]?.offset ?? 0, atMs: ms });
    }
    at += skipHeard;
    word += skipWords;
    const same = words[word];
    if (!same) break;
    marks.push({ offset: same.offset, atMs: timeOf(at) });
    at += 1;
    word += 1;
  }
  return marks;
}

/** How many of each are passed over before a word that is the same in both; all that is left where none is. */
function nextInBoth(
  forms: readonly string[],
  at: number,
  words: readonly { plain: string }[],
  word: number,
): [heard: number, words: number] {
  for (let sum = 0; sum <= LOOK_AHEAD; sum += 1)
    for (let skip = 0; skip <= sum; skip += 1) {
      const [a, b] = [at + skip, word + sum - skip];
      if (a < forms.length && b < words.length && forms[a] === words[b]?.plain) return [skip, sum - skip];
    }
  return [Math.max(0, forms.length - at), words.length - word];
}

/** Marks where no times are known: in proportion to the characters before each word. */
export function guessedMarks(text: string, fromMs: number, endMs: number): WordMark[] {
  const length = Math.max(1, text.length);
  return wordsOf(text).map(({ offset }) => ({ offset, atMs: fromMs + ((endMs - fromMs) * offset) / length }));
}
