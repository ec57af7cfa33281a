import type { Element, Root } from 'hast';
import { toString } from 'hast-util-to-string';
import { CONTINUE, EXIT, visit } from 'unist-util-visit';
import { visitParents } from 'unist-util-visit-parents';
import { elementsIn, type TextBlock, type TextRange } from '../text';

/** What links of a raised mark lead to: the footnotes. */
export function footnotesIn(tree: Root): Set<Element> {
  const ids = new Set<string>();
  const targets = new Map<string, Element>();
  visitParents(tree, 'element', (node, ancestors) => {
    const { id, href } = node.properties;
    if (typeof id === 'string') targets.set(id, node);
    if (node.tagName !== 'a' || typeof href !== 'string' || !href.startsWith('#')) return;
    const isRaised = ancestors.some((each) => each.type === 'element' && each.tagName === 'sup');
    if (isRaised || isMark(node)) ids.add(href.slice(1));
  });
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
  let isFound = false;
  visit(element, 'element', ({ properties: { href } }, _at, parent) => {
    const isRaised = parent?.type === 'element' && parent !== element && parent.tagName === 'sup';
    isFound ||= isRaised && typeof href === 'string' && ids.has(href.slice(1));
    return isFound ? EXIT : CONTINUE;
  });
  return isFound;
}

const isMark = (link: Element): boolean => /^\s*[[(]?(?:\d{1,3}|[*†‡§a-z]|↩︎?|↑|\^)[\])]?\s*$/u.test(toString(link));

/** The places of a block's footnote marks, and of the arrows that lead back. */
export function marksIn(block: TextBlock): TextRange[] {
  return elementsIn(block).filter(
    ({ element }) =>
      element.tagName === 'a' &&
      typeof element.properties.href === 'string' &&
      element.properties.href.startsWith('#') &&
      isMark(element),
  );
}
