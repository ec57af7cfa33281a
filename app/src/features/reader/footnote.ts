import { plainText } from '@dorvel/core/text';
import type { Element, ElementContent, Root } from 'hast';

/** What a footnote says, without the way back that it carries; null where the tree has none of this id. */
export function noteIn(tree: Root, id: string): Root | null {
  const found = find(tree, id);
  if (!found) return null;
  const without = (nodes: ElementContent[]): ElementContent[] =>
    nodes.flatMap((node): ElementContent[] => {
      if (node.type !== 'element') return [node];
      const { href } = node.properties;
      if (node.tagName === 'a' && typeof href === 'string' && href.startsWith('#')) return [];
      const { id: _, ...properties } = node.properties;
      return [{ ...node, properties, children: without(node.children) }];
    });
  return { type: 'root', children: without(found.children) };
}

function find(node: Root | Element, id: string): Element | null {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (child.properties.id === id) return child;
    const inside = find(child, id);
    if (inside) return inside;
  }
  return null;
}

/** The words of a footnote in one line; null where there is none. */
export function noteWords(tree: Root, id: string): string | null {
  const note = noteIn(tree, id);
  const words =
    note &&
    plainText({
      ...note,
      children: [{ type: 'element', tagName: 'div', properties: {}, children: note.children as ElementContent[] }],
    })
      .text.replace(/\s+/g, ' ')
      .trim();
  return words === '' ? null : words;
}
