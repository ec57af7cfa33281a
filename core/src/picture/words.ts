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

/** The page that pictures are from: where the lines between which they stood lead last (givenPictures in core/extract); null where none is said. */
export function pageOfPictures({ children }: Root): string | null {
  const links = (node: Root['children'][number]): string[] => {
    if (node.type !== 'element') return [];
    const own = node.tagName === 'a' && typeof node.properties.href === 'string' ? [node.properties.href] : [];
    return [...own, ...node.children.flatMap(links)];
  };
  return children.filter(isQuote).flatMap(links).at(-1) ?? null;
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
