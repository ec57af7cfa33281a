import type { Element, ElementContent } from 'hast';

export function element(tagName: string, children: ElementContent[], properties: Element['properties'] = {}): Element {
  return { type: 'element', tagName, properties, children };
}

/** A figure of what stood in one block, pictures and no words: no breaks between them. */
export function figureOf(children: readonly ElementContent[]): Element {
  return element(
    'figure',
    children.filter((child) => child.type === 'element' && child.tagName !== 'br'),
  );
}

/** Collapses white space over a run of phrasing as a browser does, trims its edges, and drops what is empty. */
export function collapse(children: ElementContent[]): ElementContent[] {
  let spaceBefore = true;
  let last: { value: string } | null = null;
  const visit = (nodes: ElementContent[]): ElementContent[] =>
    nodes.flatMap((node): ElementContent[] => {
      if (node.type === 'text') {
        let value = node.value.replace(/[\t\n\f\r \u200b\ufeff]+/g, ' ');
        if (spaceBefore) value = value.replace(/^ /, '');
        if (value === '') return [];
        spaceBefore = value.endsWith(' ');
        const kept = { type: 'text' as const, value };
        last = kept;
        return [kept];
      }
      if (node.type !== 'element') return [];
      if (node.tagName === 'br') {
        trimEnd(last);
        spaceBefore = true;
        return [node];
      }
      if (node.tagName === 'img') {
        spaceBefore = false;
        last = null;
        return [node];
      }
      const inner = visit(node.children);
      return inner.length > 0 || /^t[dh]$/.test(node.tagName) ? [{ ...node, children: inner }] : [];
    });
  const made = trimBreaks(visit(children));
  trimEnd(last);
  return dropEmptyText(made);
}

function trimEnd(text: { value: string } | null): void {
  if (text) text.value = text.value.replace(/ $/, '');
}

function trimBreaks(nodes: ElementContent[]): ElementContent[] {
  const isBreak = (node: ElementContent | undefined) => node?.type === 'element' && node.tagName === 'br';
  let from = 0;
  let to = nodes.length;
  while (from < to && isBreak(nodes[from])) from++;
  while (to > from && isBreak(nodes[to - 1])) to--;
  return nodes.slice(from, to);
}

function dropEmptyText(nodes: ElementContent[]): ElementContent[] {
  return nodes.flatMap((node): ElementContent[] => {
    if (node.type === 'text') return node.value === '' ? [] : [node];
    if (node.type !== 'element') return [];
    if (node.tagName === 'br' || node.tagName === 'img') return [node];
    const children = dropEmptyText(node.children);
    return children.length > 0 ? [{ ...node, children }] : [];
  });
}
