import type { Element, Root } from 'hast';
import {
  type Choices,
  type Copy,
  type Item,
  MAX_PICTURES,
  type PictureFacts,
  placeOfWord,
  type RecognisedPicture,
  type RecognisedWord,
  type WordsPutRight,
} from '../model';

/** A word of which the recognition is less sure may be wrong, and is shown so. */
export const UNSURE_BELOW = 82;
export const isUnsure = ({ sure }: Pick<RecognisedWord, 'sure'>): boolean => sure < UNSURE_BELOW;

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
  const paragraphs = blocks.flatMap((block) =>
    inColumns(
      block
        .flat()
        .map((line, n, lines) => (goesOn(line, lines[n - 1]) ? line : kept(line)))
        .filter((line) => line.length > 0),
    ).flatMap(grouped),
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

/** A gap between two words is a gutter when it is so many times as wide as the line is high, and stands in so many lines. */
const GUTTER = 1.3;
const LINES_WITH_GUTTER = 3;
/** Of the lines over a gutter, so many may run across it: a heading over both columns. */
const ACROSS = 0.25;

/**
 * Lines that recognition has drawn through a gutter, cut there: the left column, then the right one, between what runs across
 * both.
 */
function inColumns(lines: (readonly FoundWord[])[]): (readonly FoundWord[])[][] {
  const gutter = gutterOf(lines);
  if (gutter === null) return lines.length === 0 ? [] : [lines];
  const parts: (readonly FoundWord[])[][] = [];
  let columns: [left: (readonly FoundWord[])[], right: (readonly FoundWord[])[]] = [[], []];
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
function runsAcross(line: readonly FoundWord[], x: number): boolean {
  const ends = line.filter(({ left }) => left < x).map(({ left, width }) => left + width);
  const begins = line.filter(({ left }) => left >= x).map(({ left }) => left);
  const end = Math.max(...ends);
  if (end > x) return true;
  return ends.length > 0 && begins.length > 0 && Math.min(...begins) - end <= GUTTER * heightOf(line);
}

/** Where a gutter runs through lines; null where there is none. */
function gutterOf(lines: readonly (readonly FoundWord[])[]): number | null {
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
function grouped(lines: readonly (readonly FoundWord[])[]): (readonly FoundWord[])[][] {
  const steps = lines.slice(1).map((line, n) => topOf(line) - topOf(lines[n] ?? []));
  const usualStep = median(steps.filter((step) => step > 0));
  const right = Math.max(0, ...lines.map(rightOf));
  const left = Math.min(Infinity, ...lines.map((line) => line[0]?.left ?? 0));
  const groups: (readonly FoundWord[])[][] = [];
  lines.forEach((line, n) => {
    const before = lines[n - 1];
    const last = groups.at(-1);
    if (!before || !last || begins(line, before)) groups.push([line]);
    else last.push(line);
  });
  return groups;

  function begins(line: readonly FoundWord[], before: readonly FoundWord[]): boolean {
    const [one, other] = [heightOf(line), heightOf(before)];
    const ends = SENTENCE_ENDS.test(before.at(-1)?.text ?? '');
    const isShort = rightOf(before) - left < SHORT_LINE * (right - left);
    return (
      topOf(line) - topOf(before) > WIDE_STEP * usualStep ||
      Math.max(one, other) > OTHER_HEIGHT * Math.min(one, other) ||
      (ends && isShort)
    );
  }
}

/** By the middle of its words: letters that go up or down make some of them higher. */
const topOf = (line: readonly FoundWord[]) => median(line.map(({ top, height }) => top + height / 2));
const rightOf = (line: readonly FoundWord[]) => Math.max(...line.map(({ left, width }) => left + width));

const thousandths = (part: number, whole: number) => Math.round((10_000 * part) / Math.max(1, whole)) / 10;

/** Whether most words of a line are sure. */
function isSureLine(line: readonly FoundWord[]): boolean {
  const wordy = line.filter(({ text }) => HAS_WORDS.test(text));
  return wordy.length >= SURE_WORDS && wordy.filter((word) => !isUnsure(word)).length >= SURE_SHARE * wordy.length;
}

/** Whether a line is the rest of the one before, which is sure and has no end: what is unsure there is a word all the same. */
function goesOn(line: readonly FoundWord[], before: readonly FoundWord[] | undefined): boolean {
  if (!before || !isSureLine(before) || SENTENCE_ENDS.test(before.at(-1)?.text ?? '')) return false;
  const [one, other] = [heightOf(before), heightOf(line)];
  const step = topOf(line) - topOf(before);
  const start = Math.abs((line[0]?.left ?? 0) - (before[0]?.left ?? 0));
  const letters = line.reduce((sum, { text }) => sum + text.length, 0);
  const isLikeIt = Math.max(one, other) <= WORD_HEIGHT * Math.min(one, other) && step > 0 && step < NEXT_LINE * one;
  return isLikeIt && start < one && letters >= WORD_GOING_ON && line.every(({ text }) => HAS_WORDS.test(text));
}
/** A single word may have no letters that go up or down: so many times as high may the line before be. */
const WORD_HEIGHT = 1.6;
/** In heights of a line, from one to the next. */
const NEXT_LINE = 2.6;
/** Fewer letters are as likely a mark. */
const WORD_GOING_ON = 4;

function kept(line: readonly FoundWord[]): FoundWord[] {
  // In a line of words that are sure an unsure one is a word too: one with an apostrophe, or a name.
  const isSure = isSureLine(line);
  const words = line.filter(({ text, sure }) =>
    HAS_WORDS.test(text) ? isSure || sure >= LEAST_SURE : sure >= LEAST_SURE_SIGN,
  );
  if (isSure) return words;
  const letters = words.reduce((sum, { text }) => sum + text.length, 0);
  const sure = words.reduce((sum, word) => sum + word.sure * word.text.length, 0) / Math.max(1, letters);
  // A line of one or two letters is a mark that looks like them, unless it stands there plainly; of one, unless it is a number.
  const isMark = (letters < 3 && sure < 90) || /^[^\p{N}]$/u.test(words.map(({ text }) => text).join(''));
  return sure < LEAST_SURE_LINE || isMark || !words.some(({ text }) => HAS_WORDS.test(text)) ? [] : words;
}

const SENTENCE_ENDS = /[.!?:…]["”’»)]?$/;
const HAS_WORDS = /[\p{L}\p{N}]/u;

const heightOf = (line: readonly FoundWord[]) => median(line.map(({ height }) => height));

function median(numbers: readonly number[]): number {
  return [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? 0;
}

/** How much of a picture is covered by its words, 0 to 1, and how many are sure. */
export function coveredBy(words: readonly RecognisedWord[]): { covered: number; words: number } {
  const sure = words.filter((word) => !isUnsure(word));
  return {
    covered: Math.min(1, sure.reduce((sum, { box }) => sum + box[2] * box[3], 0) / 1_000_000),
    words: sure.length,
  };
}

/** The words of a picture with what the reader put right in them; null for what the reader says is no word. */
export function wordsPutRight({ hash, words }: RecognisedPicture, putRight: WordsPutRight): (RecognisedWord | null)[] {
  return words.map((word, place) => {
    const said = putRight[placeOfWord(hash, place)]?.value;
    if (said?.was !== word.text) return word;
    return said.is === '' ? null : { ...word, text: said.is, sure: 100 };
  });
}

interface TextBlock {
  isHeading: boolean;
  text: string;
}

/** Words as paragraphs and headings: lines joined, and words that a hyphen at a line's end had cut in two. */
export function paragraphsOf(words: readonly (RecognisedWord | null)[]): TextBlock[] {
  const blocks: TextBlock[] = [];
  let begins: RecognisedWord['begins'];
  for (const word of words) {
    // What begins with a word that is none begins with the next.
    begins = word?.begins === undefined || word.begins === 'line' ? (begins ?? word?.begins) : word.begins;
    if (word === null) continue;
    const last = blocks.at(-1);
    if (!last || begins === 'paragraph' || begins === 'heading')
      blocks.push({ isHeading: begins === 'heading', text: word.text });
    else if (begins === 'line' && /\p{Ll}[-‐\u00ad]$/u.test(last.text) && /^\p{Ll}/u.test(word.text))
      last.text = last.text.slice(0, -1) + word.text;
    else last.text += ` ${word.text}`;
    begins = undefined;
  }
  return blocks;
}

const element = (tagName: string, children: Element['children'], properties: Element['properties'] = {}): Element => ({
  type: 'element',
  tagName,
  properties,
  children,
});
const words = (text: string) => [{ type: 'text' as const, value: text }];

/** A picture with what was said of it, to stand in a text. */
export interface PictureShown {
  src: string;
  alt: string;
  width?: number;
  height?: number;
  caption?: string | null;
}

/** A picture as a figure of a text. */
export function figureOf({ src, alt, width, height, caption }: PictureShown): Element {
  const image = element('img', [], { src, alt, ...(width && height ? { width, height } : {}) });
  return element('figure', caption ? [image, element('figcaption', words(caption))] : [image]);
}

const isA =
  (tagName: string) =>
  (block: Root['children'][number]): block is Element =>
    block.type === 'element' && block.tagName === tagName;
const isFigure = isA('figure');
const isQuote = isA('blockquote');
const hasSource = ({ children }: Element): boolean =>
  children.some(
    (child) =>
      child.type === 'element' && ((child.tagName === 'img' && Boolean(child.properties.src)) || hasSource(child)),
  );

/** Whether a text is nothing but pictures, perhaps with the lines between which they stood. */
export const isOnlyPictures = ({ children }: Root): boolean =>
  children.some(isFigure) &&
  children.filter(isFigure).length <= MAX_PICTURES &&
  children.every((block) => isFigure(block) || isQuote(block));

/**
 * Pictures with the words that stand in them, as a text to be read, found and heard.
 *
 * @param tree with the pictures, with or without their words
 * @param recognised the words of each
 * @param typed what the reader typed in
 */
export function treeOfPictures(
  tree: Root,
  recognised: readonly (readonly (RecognisedWord | null)[])[],
  typed: string | null = null,
): Root {
  // A picture that did not come through keeps its place without a source; no words are its own.
  let at = 0;
  const blocks = tree.children.filter(isFigure).flatMap((figure) => {
    const own = hasSource(figure) ? (recognised[at++] ?? []) : [];
    return [figure, ...paragraphsOf(own).map(({ isHeading, text }) => element(isHeading ? 'h3' : 'p', words(text)))];
  });
  const byHand = (typed ?? '')
    .split(/\n\s*\n|\r?\n/)
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => element('p', words(line)));
  return { type: 'root', children: [...blocks, ...byHand, ...tree.children.filter(isQuote)] };
}

/** What of an item says what stands in its pictures. */
interface Said extends Pick<Item, 'putRight'> {
  choices: Pick<Choices, 'typed'>;
}

/**
 * The text of a copy with the words that the reader put right in its pictures, and those typed in by hand; the tree itself where
 * there are none.
 */
export function treePutRight(
  { tree, recognised = [] }: Pick<Copy, 'tree' | 'recognised'>,
  { putRight, choices: { typed } }: Said,
): Root {
  if (Object.keys(putRight).length === 0 && !typed.value) return tree;
  if (recognised.length === 0 && !isOnlyPictures(tree)) return tree;
  return treeOfPictures(
    tree,
    recognised.map((each) => wordsPutRight(each, putRight)),
    typed.value,
  );
}

/** What an item's pictures are in a word, by the reader or as they look; null where they were not looked at. */
export const kindOfItem = (choices: Pick<Choices, 'kindSaid'>, pictures: readonly PictureFacts[]) =>
  choices.kindSaid.value ?? pictures[0]?.seen?.kind ?? null;

/** A recognised word with where it stands in the text of its copy. */
export interface PlacedWord {
  hash: string;
  /** Among the words of its picture. */
  place: number;
  word: RecognisedWord;
  /** Offsets in the plain text. */
  start: number;
  end: number;
}

/**
 * Where the words of pictures stand in the text that was made of them.
 *
 * @param text the plain text of the copy as it is read (core/text)
 */
export function placedWords(
  text: string,
  recognised: readonly RecognisedPicture[],
  putRight: WordsPutRight,
): PlacedWord[] {
  const placed: PlacedWord[] = [];
  let from = 0;
  for (const picture of recognised)
    wordsPutRight(picture, putRight).forEach((word, place) => {
      if (word === null) return;
      // At the end of a line the hyphen may have gone, with what was cut in two made one.
      const whole = text.indexOf(word.text, from);
      const written = whole < 0 || whole > from + AHEAD ? word.text.replace(/[-‐\u00ad]$/u, '') : word.text;
      const start = text.indexOf(written, from);
      if (start < 0 || start > from + AHEAD) return;
      placed.push({ hash: picture.hash, place, word, start, end: start + written.length });
      from = start + written.length;
    });
  return placed;
}

/** The next word begins no farther ahead than that, but where a caption stands between two pictures. */
const AHEAD = 1200;
