import type { RecognisedWord } from '../model';
import { isUnsure } from './words';

/** A word as it was found: with its place in pixels. */
export interface FoundWord {
  text: string;
  sure: number;
  left: number;
  top: number;
  width: number;
  height: number;
}
/** Words as recognition gives them: blocks of paragraphs of lines. */
export type FoundBlocks = FoundWord[][][][];

/** A word less sure than this is more often a mark or a shadow than a word. */
const LEAST_SURE = 45;
/** Of a sign among words, as &, one must be surer: specks are taken for dots and strokes. */
const LEAST_SURE_SIGN = 80;
/** Of so many words, so many sure make a line of words. */
const SURE_WORDS = 3;
const SURE_SHARE = 0.6;
/** A line is kept when its words are as sure as that, taken together. */
const LEAST_SURE_LINE = 58;
/** Lines so much higher than most are headings, when they are not long. */
const HEADING = 1.4;
const LONGEST_HEADING = 14;

/**
 * What was recognised in a picture as words in the order of reading, without what is more likely no word: marks, shadows and the
 * grain of a photograph are taken for letters.
 *
 * @param size of the picture that the places are in, in pixels
 */
export function recognisedWords(blocks: FoundBlocks, size: { width: number; height: number }): RecognisedWord[] {
  const found = blocks.map((block) => block.flat());
  const all = found.flat();
  const paragraphs = wholeParagraphs(
    inOrder(
      found.map((lines) =>
        lines
          .map((line) => (all.some((before) => goesOn(line, before)) ? line : kept(line)))
          .filter((line) => line.length > 0),
      ),
    ).flatMap((block) => inColumns(block).flatMap(grouped)),
  );
  const usual = median(paragraphs.flat().map(heightOf));
  return paragraphs.flatMap((lines) => {
    const words = lines.flat();
    const isHeading =
      words.length <= LONGEST_HEADING && paragraphs.length > 1 && median(lines.map(heightOf)) > HEADING * usual;
    return lines.flatMap((line, n) =>
      line.map(({ text, sure, left, top, width, height }, place): RecognisedWord => ({
        text,
        sure: Math.round(sure),
        box: [
          thousandths(left, size.width),
          thousandths(top, size.height),
          thousandths(width, size.width),
          thousandths(height, size.height),
        ],
        ...(place > 0 ? {} : { begins: n > 0 ? 'line' : isHeading ? 'heading' : 'paragraph' }),
      })),
    );
  });
}

type Line = readonly FoundWord[];

/** What is asked of a line again and again: each is compared with all others, and a page of a newspaper has a thousand. */
function once<Of>(ask: (line: Line) => Of): (line: Line) => Of {
  const known = new WeakMap<Line, { of: Of }>();
  return (line) => {
    let found = known.get(line);
    if (!found) known.set(line, (found = { of: ask(line) }));
    return found.of;
  };
}

/**
 * Blocks with what recognition took out of them by mistake put back: a line that stands between two lines of another block, and
 * the rest of a line, beyond a gap that is no gutter. In pages that were photographed from below many are.
 */
function inOrder(blocks: readonly Line[][]): Line[][] {
  const whole: Line[][] = [];
  for (const block of blocks) {
    const at = whole.findIndex((other) => standIn(block, other) || standIn(other, block));
    if (at < 0) whole.push([...block]);
    else whole[at] = rowsOf([...(whole[at] ?? []), ...block]);
  }
  // What was joined may hold a third.
  return whole.length === blocks.length ? whole : inOrder(whole);
}

/** Whether a line of some words belongs between the lines of another block, or to one of them. */
function standIn(block: readonly Line[], other: readonly Line[]): boolean {
  return block.some((line) => {
    const [height, middle] = [heightOf(line), topOf(line)];
    if (lettersOf(line) < WORD_GOING_ON) return false;
    const over = other.filter((each) => isOver(each, line));
    const isBetween =
      over.some((each) => topOf(each) < middle - height / 2) && over.some((each) => topOf(each) > middle + height / 2);
    return isBetween || other.some((each) => goesOnBeside(each, line) || goesOnBeside(line, each));
  });
}

/** Whether most of the shorter one of two lines is above or below the other. */
function isOver(one: Line, other: Line): boolean {
  const shared = Math.min(rightOf(one), rightOf(other)) - Math.max(leftOf(one), leftOf(other));
  return shared > Math.min(rightOf(one) - leftOf(one), rightOf(other) - leftOf(other)) / 2;
}

/** Whether a line goes on in another that stands to its right. */
function goesOnBeside(line: Line, rest: Line): boolean {
  const height = Math.min(heightOf(line), heightOf(rest));
  const gap = leftOf(rest) - rightOf(line);
  if (Math.abs(topOf(line) - topOf(rest)) >= height / 2 || gap <= -height / 2) return false;
  return gap < WORD_SPACE * height || gap < WIDER * median([line, rest].flatMap(gapsIn));
}
/** In heights of a line: no gutter is narrower, and few spaces between words are wider. */
const WORD_SPACE = 0.9;
/** In usual spaces of the two lines. */
const WIDER = 1.4;

const gapsIn = (line: Line) =>
  line.slice(1).map(({ left }, n) => left - (line[n]?.left ?? left) - (line[n]?.width ?? 0));

/** Lines from top to bottom, those of one row joined. */
function rowsOf(lines: readonly Line[]): Line[] {
  const rows: FoundWord[][] = [];
  for (const line of lines.toSorted((a, b) => topOf(a) - topOf(b))) {
    const last = rows.at(-1);
    if (last && topOf(line) - topOf(last) < Math.min(heightOf(line), heightOf(last)) / 2) last.push(...line);
    else rows.push([...line]);
  }
  return rows.map((row) => row.toSorted((a, b) => a.left - b.left));
}

/** A gap between two words is a gutter when it is so many times as wide as the line is high, and stands in so many lines. */
const GUTTER = 1.3;
const LINES_WITH_GUTTER = 3;
/** Of the lines over a gutter, so many may run across it: a heading over both columns. */
const ACROSS = 0.25;

/**
 * Lines that recognition has drawn through a gutter, cut there: the left column, then the right one, between what runs across
 * both.
 */
function inColumns(lines: Line[]): Line[][] {
  const gutter = gutterOf(lines);
  if (gutter === null) return lines.length === 0 ? [] : [lines];
  const parts: Line[][] = [];
  let columns: [left: Line[], right: Line[]] = [[], []];
  const settle = () => {
    for (const column of columns) parts.push(...inColumns(column));
    columns = [[], []];
  };
  for (const line of lines) {
    if (runsAcross(line, gutter)) {
      settle();
      parts.push([line]);
      continue;
    }
    const left = line.filter((word) => word.left < gutter);
    const right = line.filter((word) => word.left >= gutter);
    if (left.length > 0) columns[0].push(left);
    if (right.length > 0) columns[1].push(right);
  }
  settle();
  return parts;
}

/** Whether a line stands on both sides of a place without a gutter there. */
function runsAcross(line: Line, x: number): boolean {
  const ends = line.filter(({ left }) => left < x).map(({ left, width }) => left + width);
  const begins = line.filter(({ left }) => left >= x).map(({ left }) => left);
  const end = Math.max(...ends);
  if (end > x) return true;
  return ends.length > 0 && begins.length > 0 && Math.min(...begins) - end <= GUTTER * heightOf(line);
}

/** Where a gutter runs through lines; null where there is none. */
function gutterOf(lines: readonly Line[]): number | null {
  const gaps = lines.flatMap((line) =>
    line.slice(1).flatMap((word, n) => {
      const before = line[n];
      const from = before ? before.left + before.width : 0;
      return before && word.left - from > GUTTER * heightOf(line) ? [{ from, to: word.left }] : [];
    }),
  );
  let best: number | null = null;
  let most = LINES_WITH_GUTTER - 1;
  for (const { from, to } of gaps) {
    const x = (from + to) / 2;
    const through = gaps.filter((gap) => gap.from < x && gap.to > x).length;
    const across = lines.filter((line) => runsAcross(line, x)).length;
    if (through > most && across <= ACROSS * (through + across)) [best, most] = [x, through];
  }
  return best;
}

/** A step from line to line, measured by the usual one in its block, that begins a paragraph. */
const WIDE_STEP = 1.45;
/** Lines of one paragraph are about equally high. */
const OTHER_HEIGHT = 1.3;
/** A line that ends so far before the others, with a full stop, is a paragraph's last. */
const SHORT_LINE = 0.82;

/** The lines of a block as paragraphs: by the space between them, by how high they are, and by last lines that are short. */
function grouped(lines: readonly Line[]): Line[][] {
  const steps = lines.slice(1).map((line, n) => topOf(line) - topOf(lines[n] ?? []));
  const usualStep = median(steps.filter((step) => step > 0));
  const right = Math.max(0, ...lines.map(rightOf));
  const left = Math.min(Infinity, ...lines.map((line) => line[0]?.left ?? 0));
  const groups: Line[][] = [];
  lines.forEach((line, n) => {
    const before = lines[n - 1];
    const last = groups.at(-1);
    if (!before || !last || begins(line, before)) groups.push([line]);
    else last.push(line);
  });
  return groups;

  function begins(line: Line, before: Line): boolean {
    const [one, other] = [heightOf(line), heightOf(before)];
    const ends = endsSentence(before);
    const isShort = rightOf(before) - left < SHORT_LINE * (right - left);
    return (
      topOf(line) - topOf(before) > WIDE_STEP * usualStep ||
      Math.max(one, other) > OTHER_HEIGHT * Math.min(one, other) ||
      (ends && isShort)
    );
  }
}

/** Paragraphs that recognition has cut into blocks, made whole: a sentence that goes on in the next line, in small letters. */
function wholeParagraphs(paragraphs: Line[][]): Line[][] {
  const whole: Line[][] = [];
  for (const lines of paragraphs) {
    const last = whole.at(-1);
    const [before, next] = [last?.at(-1), lines[0]];
    const goes =
      before && next && /^\p{Ll}/u.test(next[0]?.text ?? '') && !endsSentence(before) && isNext(next, before);
    if (last && goes) last.push(...lines);
    else whole.push([...lines]);
  }
  return whole;
}

/** By the middle of its words: letters that go up or down make some of them higher. */
const topOf = once((line) => median(line.map(({ top, height }) => top + height / 2)));
const leftOf = once((line) => Math.min(...line.map(({ left }) => left)));
const rightOf = once((line) => Math.max(...line.map(({ left, width }) => left + width)));

const thousandths = (part: number, whole: number) => Math.round((10_000 * part) / Math.max(1, whole)) / 10;

/** Whether most words of a line are sure. */
const isSureLine = once((line) => {
  const wordy = line.filter(({ text }) => HAS_WORDS.test(text));
  return wordy.length >= SURE_WORDS && wordy.filter((word) => !isUnsure(word)).length >= SURE_SHARE * wordy.length;
});

/** Whether a line is the rest of the one before, which is sure and has no end: what is unsure there is a word all the same. */
function goesOn(line: Line, before: Line): boolean {
  if (line === before || !isNext(line, before) || !isSureLine(before) || endsSentence(before)) return false;
  return lettersOf(line) >= WORD_GOING_ON && line.every(({ text }) => HAS_WORDS.test(text));
}

const endsSentence = (line: Line) => SENTENCE_ENDS.test(line.at(-1)?.text ?? '');
const lettersOf = once((line) => line.reduce((sum, { text }) => sum + text.length, 0));

/** Whether a line stands right below another, as high and at the same margin. */
function isNext(line: Line, before: Line): boolean {
  const [one, other] = [heightOf(before), heightOf(line)];
  const step = topOf(line) - topOf(before);
  const start = Math.abs((line[0]?.left ?? 0) - (before[0]?.left ?? 0));
  return (
    Math.max(one, other) <= WORD_HEIGHT * Math.min(one, other) && step > 0 && step < NEXT_LINE * one && start < one
  );
}
/** A single word may have no letters that go up or down: so many times as high may the line before be. */
const WORD_HEIGHT = 1.6;
/** In heights of a line, from one to the next. */
const NEXT_LINE = 2.6;
/** Fewer letters are as likely a mark. */
const WORD_GOING_ON = 4;

function kept(line: Line): FoundWord[] {
  // In a line of words that are sure an unsure one is a word too: one with an apostrophe, or a name.
  const isSure = isSureLine(line);
  const words = line.filter(({ text, sure }) =>
    HAS_WORDS.test(text) ? isSure || sure >= LEAST_SURE : sure >= LEAST_SURE_SIGN,
  );
  if (isSure) return words;
  const letters = lettersOf(words);
  const sure = words.reduce((sum, word) => sum + word.sure * word.text.length, 0) / Math.max(1, letters);
  // A line of one or two letters is a mark that looks like them, unless it stands there plainly; of one, unless it is a number.
  const isMark = (letters < 3 && sure < 90) || /^[^\p{N}]$/u.test(words.map(({ text }) => text).join(''));
  return sure < LEAST_SURE_LINE || isMark || !words.some(({ text }) => HAS_WORDS.test(text)) ? [] : words;
}

const SENTENCE_ENDS = /[.!?:…]["”’»)]?$/;
const HAS_WORDS = /[\p{L}\p{N}]/u;

const heightOf = once((line) => median(line.map(({ height }) => height)));

function median(numbers: readonly number[]): number {
  return [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? 0;
}
