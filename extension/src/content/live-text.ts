import { BLOCK_ELEMENTS, BLOCK_SEPARATOR, partitionPoint, type TextRange } from '@dorvel/core/text';

/** The text of a page as it stands in the browser, written as core/text writes that of a clean tree. */
export interface LiveText {
  text: string;
  /** Where its headings stand. */
  headings: TextRange[];
  /** Where links and emphasis of a few words stand. */
  pointedOut: TextRange[];
  /** A part of it as a range of the document. */
  range(start: number, end: number): Range | null;
  /** The part of it that a range of the document holds. */
  part(range: Range): { start: number; end: number } | null;
}

/** A run of the text that stands in one node, character for character. */
interface Run {
  start: number;
  node: Text;
  /** Of its first character in the node. */
  from: number;
  length: number;
}

const UNREAD = new Set(['SCRIPT', 'STYLE', 'NOSCRIPT', 'TEMPLATE', 'TEXTAREA', 'SELECT', 'SVG', 'IFRAME']);
const HEADING = /^H[1-6]$/;
const POINTS_OUT = /^(?:A|EM|STRONG|I|B|Q|DFN|CITE)$/;
/** What is longer points out a sentence. */
const MAX_POINTED_OUT = 60;

/** Reads a page: runs of space become one, blocks are parted as in core/text. */
export function liveText(root: Element): LiveText {
  const reading = readingOf(root, () => false);
  for (;;) {
    const { done, value } = reading.next();
    if (done) return value;
  }
}

/**
 * The same piece by piece, so that a long page is not held up by it.
 *
 * @param isLeftOut what of the page is not meant
 * @param pause waits until the page may be worked on again
 * @param forMs so long may it be worked on at once
 */
export async function liveTextInPieces(
  root: Element,
  isLeftOut: (element: Element) => boolean,
  pause: () => Promise<void>,
  forMs: number,
): Promise<LiveText> {
  const reading = readingOf(root, isLeftOut);
  let began = performance.now();
  for (;;) {
    const { done, value } = reading.next();
    if (done) return value;
    if (performance.now() - began < forMs) continue;
    await pause();
    began = performance.now();
  }
}

/** Gives way after each node with text. */
function* readingOf(root: Element, isLeftOut: (element: Element) => boolean): Generator<undefined, LiveText> {
  const pieces: string[] = [];
  const runs: Run[] = [];
  const [headings, pointedOut]: [TextRange[], TextRange[]] = [[], []];
  let length = 0;
  let isNewBlock = false;
  /** A space that is written when something follows it in its block. */
  let space: { node: Text; index: number } | null = null;
  const add = (words: string, node: Text, from: number) => {
    const last = runs.at(-1);
    if (last?.node === node && last.from + last.length === from && last.start + last.length === length)
      last.length += words.length;
    else runs.push({ start: length, node, from, length: words.length });
    pieces.push(words);
    length += words.length;
  };
  const read = (node: Text) => {
    for (const { 0: piece, index } of node.data.matchAll(/\S+|\s+/gu)) {
      if (/^\s/u.test(piece)) {
        if (length > 0) space ??= { node, index };
        continue;
      }
      if (isNewBlock && length > 0) {
        pieces.push(BLOCK_SEPARATOR);
        length += BLOCK_SEPARATOR.length;
      } else if (space) add(' ', space.node, space.index);
      isNewBlock = false;
      space = null;
      add(piece, node, index);
    }
  };
  function* visit(node: Node): Generator<undefined, void> {
    if (node instanceof Text) {
      read(node);
      yield;
    }
    if (!(node instanceof Element)) return;
    const name = node.tagName.toUpperCase();
    if (UNREAD.has(name) || isLeftOut(node)) return;
    const isBlock = BLOCK_ELEMENTS.has(name.toLowerCase());
    if (isBlock) isNewBlock = true;
    const start = length;
    for (const child of (node.shadowRoot ?? node).childNodes) yield* visit(child);
    if (HEADING.test(name)) headings.push({ start, end: length });
    if (POINTS_OUT.test(name) && length - start <= MAX_POINTED_OUT) pointedOut.push({ start, end: length });
    if (isBlock) isNewBlock = true;
  }
  yield* visit(root);
  return { text: pieces.join(''), headings, pointedOut, ...placesOf(runs) };
}

/** Finds places of the text in the document, and the other way round. */
function placesOf(runs: readonly Run[]): Pick<LiveText, 'range' | 'part'> {
  /** The first run that ends behind an offset. */
  const runAt = (offset: number) =>
    partitionPoint(runs.length, (at) => (runs[at]?.start ?? 0) + (runs[at]?.length ?? 0) > offset);
  return {
    range(start, end) {
      const first = runs[runAt(start)];
      const last = runs[partitionPoint(runs.length, (at) => (runs[at]?.start ?? 0) >= end) - 1];
      if (!first || !last || first.start >= end || last.start + last.length <= start) return null;
      const range = document.createRange();
      range.setStart(first.node, first.from + Math.max(0, start - first.start));
      range.setEnd(last.node, last.from + Math.min(last.length, end - last.start));
      return range;
    },
    part(range) {
      const inside = runs.flatMap((run) => overlap(run, range) ?? []);
      const [first, last] = [inside[0], inside.at(-1)];
      return first && last ? { start: first.start, end: last.end } : null;
    },
  };
}

/** What of a run lies in a range of the document, as offsets of the text. */
function overlap({ node, from, start, length }: Run, range: Range): TextRange | null {
  if (!range.intersectsNode(node)) return null;
  const first = node === range.startContainer ? range.startOffset : 0;
  const behind = node === range.endContainer ? range.endOffset : node.length;
  const [low, high] = [Math.max(first, from), Math.min(behind, from + length)];
  return low < high ? { start: start + low - from, end: start + high - from } : null;
}
