import { BLOCK_ELEMENTS, BLOCK_SEPARATOR } from '@dorvel/core/text';

/** The text of a page as it stands in the browser, written as core/text writes that of a clean tree. */
export interface LiveText {
  text: string;
  /** A part of it as a range of the document. */
  range(start: number, end: number): Range | null;
  /** The part of it that a range of the document holds. */
  part(range: Range): { start: number; end: number } | null;
}

/** A character of the text: where it stands in the document. */
interface Spot {
  node: Text;
  index: number;
}

const UNREAD = new Set(['SCRIPT', 'STYLE', 'NOSCRIPT', 'TEMPLATE', 'TEXTAREA', 'SELECT', 'SVG', 'IFRAME']);

/** Reads a page: runs of space become one, blocks are parted as in core/text. */
export function liveText(root: Element): LiveText {
  let text = '';
  /** Null for what stands between blocks. */
  const spots: (Spot | null)[] = [];
  let parts = false;
  const add = (letter: string, spot: Spot) => {
    if (parts && text !== '') {
      text = text.replace(/ $/, '');
      spots.length = text.length;
      text += BLOCK_SEPARATOR;
      spots.push(...Array<null>(BLOCK_SEPARATOR.length).fill(null));
    }
    parts = false;
    text += letter;
    spots.push(spot);
  };
  const read = (node: Text) => {
    for (let index = 0; index < node.length; index++) {
      const letter = node.data[index] ?? '';
      if (!/\s/.test(letter)) add(letter, { node, index });
      else if (!parts && text !== '' && !/\s$/.test(text)) add(' ', { node, index });
    }
  };
  const visit = (node: Node) => {
    if (node instanceof Text) read(node);
    if (!(node instanceof Element) || UNREAD.has(node.tagName.toUpperCase())) return;
    const isBlock = BLOCK_ELEMENTS.has(node.tagName.toLowerCase());
    if (isBlock) parts = true;
    (node.shadowRoot ?? node).childNodes.forEach(visit);
    if (isBlock) parts = true;
  };
  visit(root);
  return {
    text,
    range(start, end) {
      const from = spots.slice(start, end).find((spot) => spot !== null);
      const to = spots.slice(start, end).findLast((spot) => spot !== null);
      if (!from || !to) return null;
      const range = document.createRange();
      range.setStart(from.node, from.index);
      range.setEnd(to.node, to.index + 1);
      return range;
    },
    part(range) {
      const inside = spots.flatMap((spot, at) =>
        spot && range.comparePoint(spot.node, spot.index) === 0 && endsInside(range, spot) ? [at] : [],
      );
      const [first, last] = [inside[0], inside.at(-1)];
      return first === undefined || last === undefined ? null : { start: first, end: last + 1 };
    },
  };
}

function endsInside(range: Range, { node, index }: Spot): boolean {
  return range.comparePoint(node, index + 1) <= 0;
}
