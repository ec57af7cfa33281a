import type { Element, ElementContent, Root } from 'hast';
import type { TextBlock, TextRange } from '../text';
import { placesIn, textOf } from './places';

/** What links of a raised mark lead to: the footnotes. */
export function footnotesIn(tree: Root): Set<Element> {
  const ids = new Set<string>();
  const targets = new Map<string, Element>();
  const visit = (node: Root | ElementContent, raised: boolean) => {
    if (node.type !== 'element' && node.type !== 'root') return;
    if (node.type === 'element') {
      const { id, href } = node.properties;
      if (typeof id === 'string') targets.set(id, node);
      if (node.tagName === 'a' && typeof href === 'string' && href.startsWith('#') && (raised || isMark(node)))
        ids.add(href.slice(1));
    }
    const inner = raised || (node.type === 'element' && node.tagName === 'sup');
    for (const child of node.children) if (child.type !== 'doctype') visit(child, inner);
  };
  visit(tree, false);
  const notes = new Set<Element>();
  for (const id of ids) {
    const target = targets.get(id);
    // The mark's own place is what the way back leads to.
    if (target && /^(?:li|p|dd|div)$/.test(target.tagName) && !containsMark(target, ids)) notes.add(target);
  }
  return notes;
}

/** A raised mark inside a paragraph makes it a place in the text, not a note. */
function containsMark(element: Element, ids: ReadonlySet<string>): boolean {
  return element.children.some(
    (child) =>
      child.type === 'element' &&
      ((child.tagName === 'sup' &&
        child.children.some(
          (inner) =>
            inner.type === 'element' &&
            typeof inner.properties.href === 'string' &&
            ids.has(inner.properties.href.slice(1)),
        )) ||
        containsMark(child, ids)),
  );
}

const isMark = (link: Element): boolean => /^\s*[[(]?(?:\d{1,3}|[*†‡§a-z]|↩︎?|↑|\^)[\])]?\s*$/u.test(textOf(link));

/** The places of a block's footnote marks, and of the arrows that lead back. */
export function marksIn(block: TextBlock): TextRange[] {
  return placesIn(block).filter(
    ({ element }) =>
      element.tagName === 'a' &&
      typeof element.properties.href === 'string' &&
      element.properties.href.startsWith('#') &&
      isMark(element),
  );
}
