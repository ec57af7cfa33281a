import type { Element, ElementContent, Root, RootContent } from 'hast';
import { partitionPoint } from './partition-point';

/**
 * The one coordinate system of a text.
 *
 * A clean tree is made of blocks. A *leaf block* is a block element that has no block inside it; all text
 * stands in leaf blocks (core/extract guarantees it). The plain text is the text of the leaf blocks in
 * order, a blank line between two. Inside a leaf block `<br>` is a line feed, and a cell that is not the
 * first of its row is preceded by a tab. Text nodes count as they are: the tree is already collapsed.
 *
 *     <h2>Tides</h2><p>High <b>at</b><br>noon</p>   →   "Tides\n\nHigh at\nnoon"
 *
 * Progress, highlights, search, echoes and speech all speak in offsets (UTF-16 units) of this text.
 */
export interface PlainText {
  readonly text: string;
  readonly blocks: readonly TextBlock[];
}

export interface TextBlock {
  readonly index: number;
  /** Offset of its first character in the plain text. */
  readonly start: number;
  /** Offset behind its last character. */
  readonly end: number;
  readonly element: Element;
}

/** Elements that start a line of their own. Cells are inside the line of their row. */
export const BLOCK_ELEMENTS: ReadonlySet<string> = new Set(
  (
    'address article aside blockquote caption dd details div dl dt figcaption figure h1 h2 h3 h4 h5 h6 hr li ' +
    'ol p pre section summary table tbody tfoot thead tr ul'
  ).split(' '),
);

export const BLOCK_SEPARATOR = '\n\n';

/** True when `element` is a block with no block anywhere inside it. */
export function isLeafBlock(element: Element): boolean {
  return BLOCK_ELEMENTS.has(element.tagName) && !hasBlockInside(element);
}

function hasBlockInside(element: Element): boolean {
  return element.children.some(
    (child) => child.type === 'element' && (BLOCK_ELEMENTS.has(child.tagName) || hasBlockInside(child)),
  );
}

/** The text of a leaf block, by the rules above. */
export function leafText(element: Element): string {
  let text = '';
  let cells = 0;
  const visit = (node: ElementContent) => {
    if (node.type === 'text') text += node.value;
    if (node.type !== 'element') return;
    if (node.tagName === 'br') text += '\n';
    if ((node.tagName === 'td' || node.tagName === 'th') && cells++ > 0) text += '\t';
    node.children.forEach(visit);
  };
  element.children.forEach(visit);
  return text;
}

/** The plain text of a clean tree with its leaf blocks. Blocks without text (a picture, a rule) take no room. */
export function plainText(tree: Root): PlainText {
  const blocks: TextBlock[] = [];
  const parts: string[] = [];
  let at = 0;
  const visit = (node: RootContent | ElementContent) => {
    if (node.type !== 'element') return;
    if (!isLeafBlock(node)) {
      node.children.forEach(visit);
      return;
    }
    const text = leafText(node);
    if (text === '') return;
    if (blocks.length > 0) at += BLOCK_SEPARATOR.length;
    blocks.push({ index: blocks.length, start: at, end: at + text.length, element: node });
    parts.push(text);
    at += text.length;
  };
  tree.children.forEach(visit);
  return { text: parts.join(BLOCK_SEPARATOR), blocks };
}

/** The block that an offset falls in; an offset between two blocks belongs to the next. Undefined for an empty text. */
export function blockAt(plain: PlainText, offset: number): TextBlock | undefined {
  const { blocks } = plain;
  const found = partitionPoint(blocks.length, (at) => (blocks[at]?.end ?? 0) >= offset);
  return blocks[Math.min(found, blocks.length - 1)];
}
