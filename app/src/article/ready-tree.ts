import { type ArticleTree, TREE_SCHEMA } from '@dorvel/core/model';
import { leafText, plainText } from '@dorvel/core/text';
import type { Element, Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';

const ready = new WeakMap<ArticleTree, ArticleTree>();

/**
 * A clean tree as it is set: each leaf block carries the offset of its first character as `data-start`. It is sanitised once
 * more, because what comes from a store is input too.
 */
export function readyTree(tree: ArticleTree): ArticleTree {
  const known = ready.get(tree);
  if (known) return known;
  const clean = sanitize(tree, TREE_SCHEMA) as Root;
  const { blocks, text } = plainText(clean);
  for (const { element, start } of blocks) element.properties.dataStart = start;
  markLinked(clean, false);
  dropRepeatedDescriptions(clean, text);
  keepShortCellsWhole(clean);
  markStandfirst(clean);
  ready.set(tree, clean);
  return clean;
}

/** A picture inside a link is pressed to follow the link. */
function markLinked(node: Root | Element, linked: boolean): void {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (child.tagName === 'img' && linked) child.properties.dataLinked = true;
    markLinked(child, linked || child.tagName === 'a');
  }
}

/** A description that the caption says as well would be heard twice. */
function dropRepeatedDescriptions(node: Root | Element, text: string): void {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (child.tagName === 'img' && typeof child.properties.alt === 'string' && text.includes(child.properties.alt))
      child.properties.alt = '';
    dropRepeatedDescriptions(child, text);
  }
}

/** What leads into a text is a sentence or a few, no word in bold and no page in bold. */
const STANDFIRST = { least: 40, most: 600 };

/** A first paragraph that is bold from end to end leads into the text: it is set as what it is. */
function markStandfirst(root: Root): void {
  const first = root.children.find((child) => child.type === 'element' && child.tagName !== 'figure');
  if (first?.type !== 'element' || first.tagName !== 'p') return;
  const { length } = leafText(first).trim();
  if (length >= STANDFIRST.least && length <= STANDFIRST.most && isBold(first)) first.properties.dataStandfirst = true;
}

const isBold = (element: Element): boolean =>
  element.children.every((child) =>
    child.type === 'element'
      ? /^(?:strong|b|br)$/.test(child.tagName) || isBold(child)
      : child.type !== 'text' || child.value.trim() === '',
  );

/** A cell of so few characters stands in one line: a number must not be parted from its unit. */
const SHORT_CELL = 12;

function keepShortCellsWhole(node: Root | Element): void {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (/^t[dh]$/.test(child.tagName) && leafText(child).trim().length <= SHORT_CELL) child.properties.dataShort = true;
    else keepShortCellsWhole(child);
  }
}
