import { sharedWords, wordsOf } from '../page/words';
import { type Own } from './line-features';
import type { PageLine } from './page-lines';

/** Which line is the headline: the one that is most like the title, headings before others; -1 for none. */
export function headlineAt(lines: readonly PageLine[], own: readonly Own[], title: Title): number {
  let best = -1;
  let bestScore = MIN_HEADLINE;
  lines.forEach((line, at) => {
    const like = likeness(line.text, title);
    if (like < MIN_HEADLINE - RANK) return;
    const level = /^h([1-6])$/.exec(line.block.tagName)?.[1];
    const score = like + (level === '1' ? RANK : level ? RANK / 3 : 0) - 0.3 * (own[at]?.links ?? 0);
    if (score > bestScore) {
      best = at;
      bestScore = score;
    }
  });
  return best >= 0 ? best : lines.findIndex((line) => line.block.tagName === 'h1');
}

const MIN_HEADLINE = 0.5;
/** What the first rank of headings adds to a line's likeness to the title. */
const RANK = 0.3;

export interface Title {
  text: string;
  words: ReadonlySet<string>;
}

/** How much of a line and of the title are the same words, 0 to 1; lines much longer or shorter are not compared. */
export function likeness(text: string, title: Title): number {
  if (text.length > 3 * title.text.length || text.length < title.text.length / 5) return 0;
  return sharedWords(wordSet(text), title.words);
}

export function wordSet(text: string): Set<string> {
  return new Set(wordsOf(text));
}

/** Runs of three words of a text. */
function* runsOf(words: readonly string[]): Generator<string> {
  for (let at = 0; at + RUN <= words.length; at++) yield words.slice(at, at + RUN).join(' ');
}

const RUN = 3;

/**
 * How much of each line stands in some texts, 0 to 1: its words that are part of a run of three words of one of them, also
 * where the run goes on from line to line (an amount in one cell, what it is of in the next), or the whole line.
 */
export function coverage(lines: readonly PageLine[], texts: readonly string[]): Float32Array {
  const shares = new Float32Array(lines.length);
  if (texts.length === 0) return shares;
  const runs = new Set<string>();
  const wholes = new Set<string>();
  for (const text of texts) {
    const words = wordsOf(text);
    wholes.add(words.join(' '));
    for (const run of runsOf(words)) runs.add(run);
  }
  const stream: string[] = [];
  const starts = lines.map((line) => {
    const start = stream.length;
    stream.push(...wordsOf(line.text));
    return start;
  });
  const covered = new Uint8Array(stream.length);
  let at = 0;
  for (const run of runsOf(stream)) {
    if (runs.has(run)) covered.fill(1, at, at + RUN);
    at++;
  }
  starts.forEach((start, line) => {
    const end = starts[line + 1] ?? stream.length;
    if (end === start) return;
    if (wholes.has(stream.slice(start, end).join(' '))) shares[line] = 1;
    else shares[line] = covered.subarray(start, end).reduce((sum, hit) => sum + hit, 0) / (end - start);
  });
  return shares;
}
