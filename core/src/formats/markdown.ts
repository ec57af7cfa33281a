import type { Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import { toHtml } from 'hast-util-to-html';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { toHast } from 'mdast-util-to-hast';
import { gfm } from 'micromark-extension-gfm';
import { visit } from 'unist-util-visit';
import { TREE_SCHEMA } from '../model';

/** What the reader wrote in Markdown (CommonMark, with GFM's tables and struck words) as a clean tree; HTML in it is left out. */
export function markdownTree(markdown: string): Root {
  const tree = fromMarkdown(markdown, { extensions: [gfm()], mdastExtensions: [gfmFromMarkdown()] });
  const written = sanitize(toHast(tree), TREE_SCHEMA);
  return written.type === 'root' ? written : { type: 'root', children: [] };
}

/** The same as HTML, for what takes rich text. @param under how many levels its headings stand lower than they are written */
export function markdownAsHtml(markdown: string, under = 0): string {
  const tree = markdownTree(markdown);
  visit(tree, 'element', (node) => {
    const level = /^h([1-6])$/.exec(node.tagName)?.[1];
    if (level) node.tagName = `h${Math.min(6, Number(level) + under)}`;
  });
  return toHtml(tree);
}
