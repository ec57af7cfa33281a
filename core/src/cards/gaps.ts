/**
 * A sentence with gaps (cloze deletion). A gap stands in double brackets; those with the same number are asked for together,
 * and those without one each by itself:
 *
 *     High water is [[twice]] a day.                    one question
 *     [[1: Spring]] tides are higher than [[1: neap]].  one question with two gaps
 *     [[Caulk]] the seam, then [[pay]] it.              two questions
 */
export interface GapPart {
  text: string;
  /** The gap's number, from 1; 0 for the words between. */
  gap: number;
}

const GAP = /\[\[(?:(\d{1,2}):)?([^[\]]+)\]\]/g;
export const MAX_GAPS = 20;

/** The parts of a sentence with gaps, in order. A text without gaps is one part. */
export function gapParts(written: string): GapPart[] {
  const numbered = [...written.matchAll(GAP)].flatMap(([, number]) => (number ? [Number(number)] : []));
  let free = Math.max(0, ...numbered);
  const parts: GapPart[] = [];
  let at = 0;
  for (const match of written.matchAll(GAP)) {
    if (match.index > at) parts.push({ text: written.slice(at, match.index), gap: 0 });
    const number = Number(match[1] ?? 0);
    parts.push({ text: (match[2] ?? '').trim(), gap: number > 0 ? number : ++free });
    at = match.index + match[0].length;
  }
  if (at < written.length) parts.push({ text: written.slice(at), gap: 0 });
  return parts;
}

/** The gaps that a sentence asks for, each once, in order. */
export function gapsIn(written: string): number[] {
  return [...new Set(gapParts(written).map(({ gap }) => gap))].filter((gap) => gap > 0);
}

/** The sentence as it reads with nothing left out. */
export function withoutGaps(written: string): string {
  return gapParts(written)
    .map(({ text }) => text)
    .join('');
}

/**
 * Makes a gap of a part of a sentence. A gap that it touches becomes part of it.
 *
 * @param start offset in the sentence as it is written, with its brackets
 */
export function makeGap(written: string, start: number, end: number): string {
  let [from, to] = [start, end];
  for (const match of written.matchAll(GAP)) {
    const [open, close] = [match.index, match.index + match[0].length];
    if (open < to && from < close) [from, to] = [Math.min(from, open), Math.max(to, close)];
  }
  const words = withoutGaps(written.slice(from, to));
  const inner = words.trim();
  if (inner === '') return written;
  const lead = words.slice(0, words.length - words.trimStart().length);
  const trail = words.slice(words.trimEnd().length);
  return `${written.slice(0, from)}${lead}[[${inner}]]${trail}${written.slice(to)}`;
}
