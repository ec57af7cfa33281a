import type { Element, ElementContent, Root } from 'hast';
import { visit } from 'unist-util-visit';
import { attribute, descendants, elementsIn, isElement, type PageElement, startOfText } from './page-tree';

/** How the element that a link inside the page leads to is noted, until the tree is written. */
export const TARGET = 'data-target';

const MAX_TARGETS = 1000;
/** Among more than this nobody looks for what stands behind a target. */
const MAX_SIBLINGS = 5000;

/**
 * Notes on the elements of a page where its own links lead, so that footnotes and their way back outlast the writing
 * again. A target without text of its own (`<a name=…></a>`) hands its mark to what follows it or stands around it.
 *
 * @param parts what is kept of the page
 * @param isKept tells whether an element comes through as an element of its own
 * @param address of the page
 * @returns from a fragment of the page to its mark
 */
export function markTargets(
  parts: readonly PageElement[],
  isKept: (element: PageElement) => boolean,
  address: string,
): Map<string, string> {
  const elements = parts.flatMap((part) => [part, ...descendants(part)]);
  const wanted = new Set<string>();
  for (const element of elements) {
    const fragment = element.tagName === 'a' ? fragmentOf(attribute(element, 'href'), address) : null;
    if (fragment && wanted.size < MAX_TARGETS) wanted.add(fragment);
  }
  const marks = new Map<string, string>();
  if (wanted.size === 0) return marks;
  for (const element of elements) {
    const names = [attribute(element, 'id'), element.tagName === 'a' ? attribute(element, 'name') : undefined].filter(
      (name) => name !== undefined && wanted.has(name) && !marks.has(name),
    ) as string[];
    if (names.length === 0) continue;
    const host = keptNear(element, isKept);
    const mark = attribute(host, TARGET) ?? `t${marks.size + 1}`;
    if (attribute(host, TARGET) === undefined) host.attrs.push({ name: TARGET, value: mark });
    for (const name of names) marks.set(name, mark);
  }
  return marks;
}

/** The fragment of a link that leads into its own page; null for any other. */
export function fragmentOf(href: string | undefined, address: string): string | null {
  const [page = '', fragment] = href?.trim().split('#') ?? [];
  if (!fragment || (page !== '' && page !== address.split('#')[0])) return null;
  try {
    return decodeURIComponent(fragment);
  } catch {
    // A stray percent sign: the fragment is meant as it stands.
    return fragment;
  }
}

function keptNear(element: PageElement, isKept: (element: PageElement) => boolean): PageElement {
  const hasText = startOfText(element, 1) !== '';
  if (hasText && isKept(element)) return element;
  const parent = hasText ? null : element.parentNode;
  const siblings = parent && parent.childNodes.length <= MAX_SIBLINGS ? elementsIn(parent) : [];
  const next = siblings[siblings.indexOf(element) + 1];
  if (next && isKept(next)) return next;
  let at: PageElement = element;
  while (at.parentNode && isElement(at.parentNode) && !isKept(at)) at = at.parentNode;
  return at;
}

/**
 * Gives the targets of a tree their final ids, `in-1`, `in-2`… in their order, points the links to them, and unwraps
 * links whose target did not come through.
 *
 * @param tree changed in place
 * @param prefix tells the parts of an article apart that was cut into several pages
 */
export function settleInsideLinks(tree: Root, prefix = ''): void {
  const ids = new Map<string, Element>();
  const wanted = new Set<string>();
  visit(tree, 'element', (node) => {
    const { id, href } = node.properties;
    if (typeof id === 'string' && !ids.has(id)) ids.set(id, node);
    else delete node.properties.id;
    if (typeof href === 'string' && href.startsWith('#')) wanted.add(href.slice(1));
  });
  const settled = new Map<string, string>();
  for (const [id, node] of ids) {
    if (wanted.has(id)) {
      settled.set(id, `in-${prefix}${settled.size + 1}`);
      node.properties.id = settled.get(id);
    } else delete node.properties.id;
  }
  if (wanted.size > 0) relink(tree, settled);
}

function relink(parent: Root | Element, settled: ReadonlyMap<string, string>): void {
  parent.children = (parent.children as ElementContent[]).flatMap((child): ElementContent[] => {
    if (child.type !== 'element') return [child];
    relink(child, settled);
    const { href } = child.properties;
    if (child.tagName !== 'a' || typeof href !== 'string' || !href.startsWith('#')) return [child];
    const id = settled.get(href.slice(1));
    if (!id) return child.children;
    child.properties.href = `#${id}`;
    return [child];
  });
}
