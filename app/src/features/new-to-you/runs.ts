import type { KnownSentence } from '@/device/workers/relate/relating';

/** Known sentences that follow one another and were met in one item: one mark stands for all of them. */
export interface KnownRun {
  start: number;
  end: number;
  itemId: string;
  sentences: readonly KnownSentence[];
}

/** @param text in which they stand @param sentences in its order */
export function runsOf(text: string, sentences: readonly KnownSentence[]): KnownRun[] {
  const runs: { start: number; end: number; itemId: string; sentences: KnownSentence[] }[] = [];
  for (const sentence of sentences) {
    const last = runs.at(-1);
    if (last?.itemId === sentence.id && text.slice(last.end, sentence.start).trim() === '') {
      last.end = sentence.end;
      last.sentences.push(sentence);
    } else runs.push({ start: sentence.start, end: sentence.end, itemId: sentence.id, sentences: [sentence] });
  }
  return runs;
}

/** Whether all that is said between two places of a text is known. */
export function isAllKnown(
  text: string,
  sentences: readonly Pick<KnownSentence, 'start' | 'end'>[],
  from: number,
  to: number,
): boolean {
  let at = from;
  for (const { start, end } of sentences) {
    if (end <= at) continue;
    if (start >= to) break;
    if (start > at && /[\p{L}\p{N}]/u.test(text.slice(at, start))) return false;
    at = end;
  }
  return at > from && (at >= to || !/[\p{L}\p{N}]/u.test(text.slice(at, to)));
}
