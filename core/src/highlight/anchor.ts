import type { TextAnchor } from '../model';
import { blockAt, fractionAbove, type PlainText } from '../text';

const QUOTE_LENGTH = 64;
const BEFORE_LENGTH = 32;

/**
 * Names a place in a text so that it can be found again.
 *
 * @param offset place in `plain.text`; clamped to it
 * @param starts the text's wordStarts
 */
export function anchorAt(plain: PlainText, starts: readonly number[], offset: number): TextAnchor {
  const at = Math.max(0, Math.min(offset, plain.text.length));
  const block = blockAt(plain, at);
  return {
    block: block?.index ?? 0,
    char: block ? Math.max(0, at - block.start) : 0,
    offset: at,
    quote: plain.text.slice(at, at + QUOTE_LENGTH),
    before: plain.text.slice(Math.max(0, at - BEFORE_LENGTH), at),
    fraction: fractionAbove(starts, at),
  };
}

/**
 * Finds an anchored place again in the same text or in a later copy of it.
 *
 * First where it was, if the quote still stands there; then the occurrence of the quote (or its first half,
 * or what stood before it) that is nearest to the old place in proportion; and last the same fraction of words.
 *
 * @returns an offset in `plain.text`
 */
export function findAnchor(plain: PlainText, starts: readonly number[], anchor: TextAnchor): number {
  const { text } = plain;
  if (anchor.quote !== '' && text.startsWith(anchor.quote, anchor.offset)) return anchor.offset;
  const expected = starts[Math.min(starts.length - 1, Math.round(anchor.fraction * starts.length))] ?? 0;
  const probes: [needle: string, shift: number][] = [
    [anchor.before + anchor.quote, anchor.before.length],
    [anchor.quote, 0],
    [anchor.quote.slice(0, QUOTE_LENGTH / 2), 0],
    [anchor.before, anchor.before.length],
    [anchor.quote.slice(0, QUOTE_LENGTH / 4), 0],
  ];
  for (const [needle, shift] of probes) {
    if (needle.trim().length < 8) continue;
    const found = nearest(text, needle, expected);
    if (found !== -1) return found + shift;
  }
  return anchor.fraction >= 1 ? text.length : expected;
}

function nearest(text: string, needle: string, expected: number): number {
  let best = -1;
  for (let at = text.indexOf(needle); at !== -1; at = text.indexOf(needle, at + 1)) {
    if (best === -1 || Math.abs(at - expected) < Math.abs(best - expected)) best = at;
    else if (at > expected) break;
  }
  return best;
}
