import type { Root } from 'hast';
import { toHtml } from 'hast-util-to-html';
import { toMdast } from 'hast-util-to-mdast';
import { gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';

/** A clean tree as HTML. */
export function treeToHtml(tree: Root): string {
  return toHtml(tree);
}

/** A clean tree as CommonMark with GFM tables. */
export function treeToMarkdown(tree: Root): string {
  return toMarkdown(toMdast(tree), { extensions: [gfmToMarkdown()], bullet: '-' });
}
