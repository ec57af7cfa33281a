import type { Element, ElementContent } from 'hast';
import type { TextBlock } from './plain';
import type { TextRange } from './sentences';

/** The elements inside a block with the places of their text, the outer before the inner. */
export function elementsIn(block: TextBlock): (TextRange & { element: Element })[] {
  const found: (TextRange & { element: Element })[] = [];
  let at = block.start;
  let cells = 0;
  const visit = (node: ElementContent) => {
    if (node.type === 'text') at += node.value.length;
    if (node.type !== 'element') return;
    if (node.tagName === 'br') at += 1;
    if (/^t[dh]$/.test(node.tagName) && cells++ > 0) at += 1;
    const place = { start: at, end: at, element: node };
    found.push(place);
    node.children.forEach(visit);
    place.end = at;
  };
  block.element.children.forEach(visit);
  return found;
}
