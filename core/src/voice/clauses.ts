/** What is longer is said in parts: the engine plans a sentence as a whole, and takes ever longer for it. In characters. */
export const LONGEST = 300;

/** Where a sentence may be cut, the best first: behind a clause, behind a comma, between words. */
const CUTS = [/[;:–—)\]]\s+/gu, /[,،、，]\s*/gu, /\s+/gu] as const;

/** A part of a sentence, with where it begins in it. */
export interface Part {
  text: string;
  start: number;
}

/**
 * A sentence in parts of a length that can be said at once, cut where a speaker would take breath.
 *
 * @param longest in UTF-16 units
 * @returns parts that together are the sentence, none of them longer
 */
export function partsOf(sentence: string, longest = LONGEST): Part[] {
  const parts: Part[] = [];
  let start = 0;
  while (sentence.length - start > longest) {
    const length = cutWithin(sentence.slice(start, start + longest));
    parts.push({ text: sentence.slice(start, start + length), start });
    start += length;
  }
  parts.push({ text: sentence.slice(start), start });
  return parts;
}

/** How much of a text stands before its best cut: the last one of the best kind that leaves no crumb. */
function cutWithin(text: string): number {
  for (const cut of CUTS) {
    const found = [...text.matchAll(cut)].map(({ 0: sign, index }) => index + sign.length);
    const last = found.findLast((end) => end >= text.length / 3);
    if (last !== undefined) return last;
  }
  // Nowhere: never between the two halves of one character.
  const isHalf = /[\uD800-\uDBFF]$/u.test(text);
  return isHalf && text.length > 1 ? text.length - 1 : text.length;
}
