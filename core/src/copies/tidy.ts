import type { Element, ElementContent, Root } from 'hast';
import { type Choices, type Copy, type Item, MAX_TIDYINGS, type Tidying } from '../model';
import { treePutRight } from '../picture';

/**
 * A copy as it is read: with the words that the reader put right in its pictures, and without the blocks that the reader took
 * out of it. The same tree where there is nothing of both.
 */
export function treeAsRead(
  copy: Pick<Copy, 'id' | 'tree' | 'recognised'>,
  item: Pick<Item, 'choices' | 'putRight'>,
): Root {
  return tidiedTree(treePutRight(copy, item), tidyingOf(item.choices, copy.id)?.out ?? []);
}

/** The copy with the blocks left out that the reader took out of it; the tree itself stays as it is. */
export function tidiedTree(tree: Root, out: readonly number[]): Root {
  if (out.length === 0) return tree;
  const gone = new Set(out);
  return { type: 'root', children: tree.children.filter((_, index) => !gone.has(index)) };
}

/** What the reader took out of a copy; undefined when it was never tidied. */
export function tidyingOf(choices: Choices, copyId: string): Tidying | undefined {
  return choices.tidied.value.find((tidying) => tidying.copyId === copyId);
}

/**
 * The tidyings of an item with those of one copy set again.
 *
 * @param out places among the blocks of the copy's tree
 */
export function withTidying(choices: Choices, copyId: string, tree: Root, out: readonly number[]): Tidying[] {
  const sorted = [...new Set(out)].sort((a, b) => a - b);
  const signs = sorted.flatMap((index) => signOf(tree.children[index]) ?? []);
  const others = choices.tidied.value.filter((tidying) => tidying.copyId !== copyId);
  return [{ copyId, out: sorted, signs }, ...others].slice(0, MAX_TIDYINGS);
}

/**
 * The blocks of a copy that the reader took out of other copies from the same site.
 *
 * @param tidied what was taken out of those
 * @returns places among the blocks of the tree; none when the reader has already decided about this copy
 */
export function suggestTidying(tree: Root, tidied: readonly Tidying[]): number[] {
  const signs = new Set(tidied.flatMap((tidying) => tidying.signs));
  if (signs.size === 0) return [];
  return tree.children.flatMap((block, index) => {
    const sign = signOf(block);
    return sign !== null && signs.has(sign) ? [index] : [];
  });
}

const MAX_SIGN_LENGTH = 200;

/**
 * What tells a block again on another page: its words, numbers aside, since "Part 3 of 7" is "Part 4 of 7" on the
 * next; of a picture without words its address. Null for a block that has neither.
 */
export function signOf(block: Root['children'][number] | undefined): string | null {
  if (block?.type !== 'element') return null;
  const words = wordsIn(block)
    .toLowerCase()
    .replace(/\p{N}+/gu, '#')
    .replace(/[^\p{L}#]+/gu, ' ')
    .trim();
  const sign = words === '' ? pictureIn(block) : words;
  return sign === null ? null : sign.slice(0, MAX_SIGN_LENGTH);
}

function wordsIn(node: ElementContent): string {
  if (node.type === 'text') return node.value;
  return node.type === 'element' ? node.children.map(wordsIn).join(' ') : '';
}

function pictureIn(element: Element): string | null {
  if (element.tagName === 'img' && typeof element.properties.src === 'string') return element.properties.src;
  for (const child of element.children) {
    const found = child.type === 'element' ? pictureIn(child) : null;
    if (found) return found;
  }
  return null;
}
