import type { Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import { toHtml } from 'hast-util-to-html';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { toHast } from 'mdast-util-to-hast';
import { gfm } from 'micromark-extension-gfm';
import { TREE_SCHEMA } from '../model';

/** What the reader wrote in Markdown (CommonMark, with GFM's tables and struck words) as a clean tree; HTML in it is left out. */
export function markdownTree(markdown: string): Root {
  const tree = fromMarkdown(markdown, { extensions: [gfm()], mdastExtensions: [gfmFromMarkdown()] });
  const written = sanitize(toHast(tree), TREE_SCHEMA);
  return written.type === 'root' ? written : { type: 'root', children: [] };
}

/** The same as HTML, for what takes rich text. */
export function markdownAsHtml(markdown: string): string {
  return toHtml(markdownTree(markdown));
}
