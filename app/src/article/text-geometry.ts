import { partitionPoint } from '@dorvel/core/text';
/**
 * Where characters stand on the screen. Works on an element whose leaf blocks carry `data-start`, the offset of
 * their first character in the plain text; inside a leaf block the rules of core/text/plain are mirrored.
 */

interface Spot {
  node: Text;
  index: number;
}

/** The vertical place of a character, relative to `origin`'s top edge, in CSS pixels. */
export function topOfOffset(article: HTMLElement, offset: number, origin: HTMLElement): number {
  const block = lastStartingAt(leafBlocks(article), offset);
  if (!block) return 0;
  const spot = spotIn(block, offset - startOf(block));
  const top = spot ? characterTop(spot) : block.getBoundingClientRect().top;
  return top - origin.getBoundingClientRect().top;
}

/** The first character of the line that stands at or below a height, relative to `origin`'s top edge. */
export function offsetAtHeight(article: HTMLElement, height: number, origin: HTMLElement): number {
  const y = height + origin.getBoundingClientRect().top;
  const blocks = leafBlocks(article);
  const isBelow = (at: number) => (blocks[at]?.getBoundingClientRect().bottom ?? 0) > y;
  const block = blocks[partitionPoint(blocks.length, isBelow)];
  if (!block) return endOf(blocks.at(-1));
  const first = partitionPoint(textLength(block), (at) => {
    const spot = spotIn(block, at);
    return !spot || characterBottom(spot) > y;
  });
  return startOf(block) + first;
}

/** A part of the text as a range of the document; null when the text is not there. */
export function rangeOfText(article: HTMLElement, start: number, end: number): Range | null {
  const blocks = leafBlocks(article);
  const first = lastStartingAt(blocks, start);
  const last = lastStartingAt(blocks, end - 1);
  const from = first && spotIn(first, start - startOf(first));
  const to = last && spotIn(last, end - 1 - startOf(last));
  if (!from || !to) return null;
  const range = document.createRange();
  range.setStart(from.node, from.index);
  range.setEnd(to.node, to.index + 1);
  return range;
}

/**
 * The part of the text that a range of the document holds, by its offsets; null when it holds none. A range may begin or
 * end outside the text, or in a picture: what of it is text counts.
 */
export function textOfRange(article: HTMLElement, range: Range): { start: number; end: number } | null {
  let start = Infinity;
  let end = -1;
  for (const block of leafBlocks(article)) {
    if (!range.intersectsNode(block)) continue;
    walk(block, (node, at) => {
      if (!range.intersectsNode(node)) return false;
      const from = node === range.startContainer ? range.startOffset : 0;
      const to = node === range.endContainer ? range.endOffset : node.length;
      if (to > from) {
        start = Math.min(start, startOf(block) + at + from);
        end = Math.max(end, startOf(block) + at + to);
      }
      return false;
    });
  }
  return end > start ? { start, end } : null;
}

/** The character at a point of the screen, as an offset of the text; null when there is none. */
export function offsetAtPoint(article: HTMLElement, x: number, y: number): number | null {
  for (const block of leafBlocks(article)) {
    const box = block.getBoundingClientRect();
    if (y < box.top || y > box.bottom) continue;
    const found: number[] = [];
    walk(block, (node, at) => {
      const range = document.createRange();
      range.selectNodeContents(node);
      if (!holds(range, x, y)) return false;
      for (let index = 0; index < node.length && found.length === 0; index++) {
        const letter = document.createRange();
        letter.setStart(node, index);
        letter.setEnd(node, index + 1);
        if (holds(letter, x, y)) found.push(startOf(block) + at + index);
      }
      return found.length > 0;
    });
    if (found[0] !== undefined) return found[0];
  }
  return null;
}

function holds(range: Range, x: number, y: number): boolean {
  return [...range.getClientRects()].some((box) => x >= box.left && x <= box.right && y >= box.top && y <= box.bottom);
}

/** Where a part of the text stands on the screen. */
export function boxOfRange(article: HTMLElement, start: number, end: number): DOMRect | null {
  return rangeOfText(article, start, end)?.getBoundingClientRect() ?? null;
}

function leafBlocks(article: HTMLElement): HTMLElement[] {
  return [...article.querySelectorAll<HTMLElement>('[data-start]')];
}

function startOf(block: HTMLElement): number {
  return Number(block.dataset.start);
}

function endOf(block: HTMLElement | undefined): number {
  return block ? startOf(block) + textLength(block) : 0;
}

function lastStartingAt(blocks: HTMLElement[], offset: number): HTMLElement | undefined {
  const next = partitionPoint(blocks.length, (at) => {
    const block = blocks[at];
    return !block || startOf(block) > offset;
  });
  return blocks[Math.max(0, next - 1)];
}

/** Walks a leaf block as core/text does: text counts as it is, a break and a cell's edge count one. */
function walk(block: HTMLElement, visit: (text: Text, start: number) => boolean): number {
  let at = 0;
  let cells = 0;
  let done = false;
  const go = (node: Node) => {
    if (done) return;
    if (node instanceof Text) {
      done = visit(node, at);
      at += node.length;
      return;
    }
    if (!(node instanceof Element) || node.classList.contains('picture-missing')) return;
    if (node.tagName === 'BR') at += 1;
    if ((node.tagName === 'TD' || node.tagName === 'TH') && cells++ > 0) at += 1;
    node.childNodes.forEach(go);
  };
  block.childNodes.forEach(go);
  return at;
}

function textLength(block: HTMLElement): number {
  return walk(block, () => false);
}

function spotIn(block: HTMLElement, index: number): Spot | null {
  let spot: Spot | null = null;
  walk(block, (node, start) => {
    if (node.length === 0) return false;
    spot = { node, index: Math.max(0, Math.min(index - start, node.length - 1)) };
    return index < start + node.length;
  });
  return spot;
}

function characterBox({ node, index }: Spot): DOMRect {
  const range = document.createRange();
  range.setStart(node, index);
  range.setEnd(node, index + 1);
  const box = range.getClientRects()[0] ?? range.getBoundingClientRect();
  return box;
}

function characterTop(spot: Spot): number {
  return characterBox(spot).top;
}

function characterBottom(spot: Spot): number {
  return characterBox(spot).bottom;
}
