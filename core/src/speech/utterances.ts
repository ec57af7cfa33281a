import { plainText, sentences, type TextBlock, type TextRange } from '../text';
import type { Root } from 'hast';

/** What a voice says in one breath: a sentence, or a line that is none. */
export interface Utterance extends TextRange {
  index: number;
  /** What to say: as long as the range it stands for, so that a place in the one is a place in the other. */
  text: string;
  /** Silence behind it, in milliseconds at a rate of 1. */
  pauseMs: number;
}

/** Between sentences, behind a paragraph, around a heading. Common practice of reading aloud; ours to tune. */
const PAUSE_MS = { sentence: 60, paragraph: 350, heading: 600 } as const;

const HEADING = /^h[1-6]$/;

/**
 * What a voice reads of a clean tree, with its places in the plain text (core/text/plain). Code is left out:
 * nobody can follow it by ear.
 *
 * @param language BCP 47 tag of the text, or null
 */
export function utterances(tree: Root, language: string | null): Utterance[] {
  const { blocks, text } = plainText(tree);
  const spoken: Utterance[] = [];
  for (const block of blocks) {
    if (block.element.tagName === 'pre') continue;
    const inBlock = sentences(text.slice(block.start, block.end), language);
    inBlock.forEach((range, at) => {
      const start = block.start + range.start;
      const end = block.start + range.end;
      const words = text.slice(start, end);
      if (!/[\p{L}\p{N}]/u.test(words)) return;
      spoken.push({
        index: spoken.length,
        start,
        end,
        // A tab stands between the cells of a row, a line feed where a line was broken: both are heard as a comma is.
        text: words.replace(/\t/g, ',').replace(/\n/g, ' '),
        pauseMs: pauseBehind(block, at === inBlock.length - 1),
      });
    });
  }
  return spoken;
}

function pauseBehind(block: TextBlock, isLast: boolean): number {
  if (!isLast) return PAUSE_MS.sentence;
  return HEADING.test(block.element.tagName) ? PAUSE_MS.heading : PAUSE_MS.paragraph;
}

/** The utterance that holds a place, or the next one behind it; the last one for a place behind all. */
export function utteranceAt(spoken: readonly Utterance[], offset: number): Utterance | undefined {
  let low = 0;
  let high = spoken.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((spoken[middle]?.end ?? 0) <= offset) low = middle + 1;
    else high = middle;
  }
  return spoken[low];
}
