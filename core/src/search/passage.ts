import type { Passage } from '../model';
import type { Alternatives } from './terms';
import { type SearchWord, searchWords } from './words';

const WORDS_SHOWN = 32;
const WORDS_BEFORE = 6;

/**
 * The passage of a text that has most of what was looked for, as near together as possible; the first of equals.
 *
 * @param language of the text
 * @returns null when the text has nothing of it
 */
export function passageOf(text: string, language: string | null, marks: readonly Alternatives[]): Passage | null {
  const words = searchWords(text, language);
  const found = occurrences(words, marks);
  const first = densest(found, blocksOf(text, words));
  if (!first) return null;
  const from = startOfShown(text, words, first.at);
  const shown = words.slice(from, from + WORDS_SHOWN);
  const start = words[from]?.start ?? 0;
  const last = shown.at(-1)?.end ?? start;
  const breakAt = text.indexOf('\n\n', words[first.at + first.words - 1]?.end ?? start);
  // The signs behind the last word belong to it.
  const behind = last + (/^[^\s\p{L}\p{N}]{0,3}/u.exec(text.slice(last, last + 3))?.[0].length ?? 0);
  const end = breakAt === -1 ? behind : Math.min(behind, breakAt);
  return {
    text: text.slice(start, end),
    start,
    marks: markedRanges(words, found, start, end),
  };
}

/** All that was looked for in a text, by offsets in it. */
export function marksIn(
  text: string,
  language: string | null,
  marks: readonly Alternatives[],
): { start: number; end: number }[] {
  const words = searchWords(text, language);
  return markedRanges(words, occurrences(words, marks), 0, text.length);
}

interface Occurrence {
  /** Index of its first word. */
  at: number;
  words: number;
  part: number;
}

function occurrences(words: readonly SearchWord[], marks: readonly Alternatives[]): Occurrence[] {
  const exact = new Map<string, { part: number; terms: readonly string[]; prefix: boolean }[]>();
  const open: { part: number; start: string }[] = [];
  marks.forEach((part, index) => {
    for (const { terms, prefix } of part) {
      const head = terms[0] ?? '';
      if (prefix && terms.length === 1) open.push({ part: index, start: head });
      else exact.set(head, [...(exact.get(head) ?? []), { part: index, terms, prefix }]);
    }
  });
  const found: Occurrence[] = [];
  words.forEach(({ term }, at) => {
    for (const { part, terms, prefix } of exact.get(term) ?? []) {
      const fits = terms.every((each, index) => {
        const here = words[at + index]?.term;
        return prefix && index === terms.length - 1 ? here?.startsWith(each) : here === each;
      });
      if (fits) found.push({ at, words: terms.length, part });
    }
    for (const { part, start } of open) if (term.startsWith(start)) found.push({ at, words: 1, part });
  });
  return found;
}

/** The block that each word stands in. */
function blocksOf(text: string, words: readonly SearchWord[]): Uint32Array {
  const blocks = new Uint32Array(words.length);
  let block = 0;
  let end = text.indexOf('\n\n');
  words.forEach(({ start }, at) => {
    while (end !== -1 && start > end) {
      block += 1;
      end = text.indexOf('\n\n', end + 2);
    }
    blocks[at] = block;
  });
  return blocks;
}

/** With what the window begins that has most parts, then most occurrences. A window ends with its block. */
function densest(found: readonly Occurrence[], blocks: Uint32Array): Occurrence | undefined {
  let best = found[0];
  let most = -1;
  let to = 0;
  const inWindow = new Map<number, number>();
  found.forEach((first, from) => {
    for (let next = found[to]; next; next = found[to]) {
      const isFar = next.at >= first.at + WORDS_SHOWN - WORDS_BEFORE;
      if (isFar || blocks[next.at] !== blocks[first.at]) break;
      const { part } = next;
      inWindow.set(part, (inWindow.get(part) ?? 0) + 1);
      to += 1;
    }
    const worth = inWindow.size * 1000 + (to - from);
    if (worth > most) {
      most = worth;
      best = first;
    }
    const left = (inWindow.get(first.part) ?? 1) - 1;
    if (left === 0) inWindow.delete(first.part);
    else inWindow.set(first.part, left);
  });
  return best;
}

/** A few words earlier, but in the same block, and from the beginning of the sentence where it is near. */
function startOfShown(text: string, words: readonly SearchWord[], first: number): number {
  for (let at = first; at > 0 && at > first - WORDS_BEFORE * 2; at--) {
    const between = text.slice(words[at - 1]?.end ?? 0, words[at]?.start ?? 0);
    if (/[.!?。！？]\s|[。！？]|\n\n/u.test(between)) return at;
  }
  return first <= WORDS_BEFORE * 2 ? 0 : first - WORDS_BEFORE;
}

function markedRanges(
  words: readonly SearchWord[],
  found: readonly Occurrence[],
  from: number,
  to: number,
): { start: number; end: number }[] {
  const ranges: { start: number; end: number }[] = [];
  for (const { at, words: length } of found) {
    const start = words[at]?.start ?? 0;
    const end = words[at + length - 1]?.end ?? start;
    if (start < from || end > to) continue;
    const last = ranges.at(-1);
    if (last && start - from <= last.end) last.end = Math.max(last.end, end - from);
    else ranges.push({ start: start - from, end: end - from });
  }
  return ranges;
}
