import { toHtml } from 'hast-util-to-html';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { toHast } from 'mdast-util-to-hast';
import { gfm } from 'micromark-extension-gfm';

/**
 * Markdown as the HTML that it stands for, with the tables, footnotes and struck words of GFM. HTML inside it is
 * passed on: extraction treats it as it treats any page's.
 */
export function markdownToHtml(markdown: string): string {
  const tree = fromMarkdown(markdown, { extensions: [gfm()], mdastExtensions: [gfmFromMarkdown()] });
  return toHtml(toHast(tree, { allowDangerousHtml: true, clobberPrefix: '' }), { allowDangerousHtml: true });
}
