import type { Element, Root } from 'hast';
import { element } from '../tree/phrases';

/** A run of text on a page of a document that is laid out: as PDF has them. Lengths in points, y upwards from below. */
export interface PlacedText {
  text: string;
  x: number;
  y: number;
  width: number;
  /** Type size. */
  size: number;
}

export interface PlacedPage {
  width: number;
  height: number;
  items: PlacedText[];
}

interface Line extends PlacedText {
  page: number;
  /** Right edge. */
  right: number;
}

/**
 * The text of pages that are laid out, in reading order: columns one after the other, running heads, feet and page
 * numbers out, words joined that were hyphenated at the end of a line, paragraphs told by their gaps and indents,
 * headings by their type size. Common practice.
 */
export function layoutToTree(pages: readonly PlacedPage[]): Root {
  const lines = withoutRunningLines(pages, pages.map(linesOf)).flatMap((own, index) =>
    inReadingOrder(own, pages[index]?.width ?? 0),
  );
  return { type: 'root', children: paragraphs(lines) };
}

/** Runs that stand on one line and near to each other are a line; a wide gap between two is a gutter. */
function linesOf(page: PlacedPage, index: number): Line[] {
  const items = page.items
    .filter(({ text, size }) => text.trim() !== '' && size > 0)
    .sort((a, b) => (Math.abs(a.y - b.y) > 0.4 * Math.min(a.size, b.size) ? b.y - a.y : a.x - b.x));
  const lines: Line[] = [];
  for (const item of items) {
    const line = lines.findLast(
      (each) =>
        Math.abs(each.y - item.y) <= 0.4 * Math.max(each.size, item.size) &&
        item.x - each.right < 1.4 * Math.max(each.size, item.size) &&
        item.x >= each.right - each.size,
    );
    if (!line || lines.length - lines.lastIndexOf(line) > 40) {
      lines.push({ ...item, page: index, right: item.x + item.width });
      continue;
    }
    const gap = item.x - line.right;
    const needsSpace = gap > 0.12 * item.size && !/\s$/.test(line.text) && !/^\s/.test(item.text);
    line.text += `${needsSpace ? ' ' : ''}${item.text}`;
    line.right = Math.max(line.right, item.x + item.width);
    // A raised note number must not lower the size that the line is known by.
    line.size = Math.max(line.size, item.size);
  }
  return lines.map((line) => ({
    ...line,
    text: line.text.replace(/\s+/g, ' ').trim(),
    width: line.right - line.x,
  }));
}

/** How much of a page at its head and foot may be a running line. */
const EDGE = 0.1;

/** Lines at the edges that come again on other pages, numbers aside, and bare page numbers. */
function withoutRunningLines(pages: readonly PlacedPage[], lines: readonly Line[][]): Line[][] {
  const marks = new Map<string, Set<number>>();
  const markOf = (line: Line) => line.text.replace(/\d+/g, '#').toLowerCase();
  // A running line stands at the edge, with more room to the text than the text's own lines have between them.
  const isAtEdge = (line: Line) => {
    const height = pages[line.page]?.height ?? 0;
    const isHead = line.y > (1 - EDGE) * height;
    if (!isHead && line.y >= EDGE * height) return false;
    const inward = (lines[line.page] ?? [])
      .map((other) => (isHead ? line.y - other.y : other.y - line.y))
      .filter((gap) => gap > 0.5 * line.size);
    return Math.min(...inward) > 1.8 * line.size;
  };
  for (const line of lines.flat().filter(isAtEdge)) {
    const on = marks.get(markOf(line)) ?? new Set();
    marks.set(markOf(line), on.add(line.page));
  }
  const often = Math.max(2, Math.ceil(0.3 * pages.length));
  return lines.map((own) =>
    own.filter(
      (line) =>
        !isAtEdge(line) ||
        !((marks.get(markOf(line))?.size ?? 0) >= often || /^\W*(?:page\s*)?\d{1,4}\W*$/i.test(line.text)),
    ),
  );
}

/** A line that reaches across the gutter parts what is above it from what is below. */
function inReadingOrder(lines: Line[], pageWidth: number): Line[] {
  const gutter = findGutter(lines, pageWidth);
  const topDown = [...lines].sort((a, b) => b.y - a.y);
  if (gutter === null) return topDown;
  const ordered: Line[] = [];
  let left: Line[] = [];
  let right: Line[] = [];
  const flush = () => {
    ordered.push(...left, ...right);
    left = [];
    right = [];
  };
  for (const line of topDown) {
    if (line.x < gutter && line.right > gutter) {
      flush();
      ordered.push(line);
    } else if (line.right <= gutter) left.push(line);
    else right.push(line);
  }
  flush();
  return ordered;
}

/** The upright white strip near the middle that nearly no line crosses while many stand on either side; or null. */
function findGutter(lines: readonly Line[], pageWidth: number): number | null {
  let best: { at: number; crossing: number } | null = null;
  for (let at = 0.35 * pageWidth; at <= 0.65 * pageWidth; at += pageWidth / 100) {
    const crossing = lines.filter((line) => line.x < at && line.right > at).length;
    const leftOf = lines.filter((line) => line.right <= at).length;
    const rightOf = lines.filter((line) => line.x >= at).length;
    if (Math.min(leftOf, rightOf) < Math.max(4, 0.2 * lines.length) || crossing > 0.25 * lines.length) continue;
    if (!best || crossing < best.crossing) best = { at, crossing };
  }
  return best?.at ?? null;
}

function paragraphs(lines: readonly Line[]): Element[] {
  const body = commonest(lines.map((line) => [Math.round(line.size * 2) / 2, line.text.length]));
  const leading = commonest(
    lines.flatMap((line, index): [number, number][] => {
      const before = lines[index - 1];
      const gap = before?.page === line.page ? before.y - line.y : 0;
      return gap > 0 && gap < 3 * line.size ? [[Math.round(gap), 1]] : [];
    }),
  );
  const sizes = [...new Set(lines.map((line) => Math.round(line.size * 2) / 2))]
    .filter((size) => size > 1.15 * body)
    .sort((a, b) => b - a);
  const blocks: Element[] = [];
  let text = '';
  let tag = 'p';
  const end = () => {
    if (text !== '') blocks.push(element(tag, [{ type: 'text', value: text }]));
    text = '';
  };
  lines.forEach((line, index) => {
    const before = lines[index - 1];
    const rank = sizes.indexOf(Math.round(line.size * 2) / 2);
    const own = rank === -1 || line.text.length > 200 ? 'p' : `h${Math.min(4, rank + 2)}`;
    if (own !== tag || (before && beginsParagraph(before, line, leading, text))) end();
    tag = own;
    text = joined(text, line.text);
  });
  end();
  return blocks;
}

function beginsParagraph(before: Line, line: Line, leading: number, text: string): boolean {
  const isOver = /[.!?:。！？]["”’»)]*$/.test(text);
  const gap = before.y - line.y;
  // The top of the next column or page goes on with the paragraph, unless that was over.
  if (line.page !== before.page || gap < 0) return isOver && /^[\p{Lu}\p{N}“"«]/u.test(line.text);
  if (gap > 1.35 * leading || /^[•◦▪–—]\s/.test(line.text)) return true;
  const indent = line.x - before.x;
  return isOver && indent > 0.6 * line.size && indent < 4 * line.size;
}

/** A hyphen at the end of a line parts a word, unless what follows begins large or the word was a compound. */
function joined(text: string, line: string): string {
  if (text === '') return line;
  if (/\p{L}[-‐]$/u.test(text) && /^\p{Ll}/u.test(line)) return `${text.slice(0, -1)}${line}`;
  if (text.endsWith('­')) return `${text.slice(0, -1)}${line}`;
  const unspaced = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}、。]$/u;
  return unspaced.test(text) ? `${text}${line}` : `${text} ${line}`;
}

/** The value with the most weight; 0 for none. */
function commonest(values: readonly (readonly [value: number, weight: number])[]): number {
  const weights = new Map<number, number>();
  for (const [value, weight] of values) weights.set(value, (weights.get(value) ?? 0) + weight);
  return [...weights].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}
