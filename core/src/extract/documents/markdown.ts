import escapeHtml from 'escape-html';
import { toHtml } from 'hast-util-to-html';
import type { Root } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { toHast } from 'mdast-util-to-hast';
import { toString } from 'mdast-util-to-string';
import { gfm } from 'micromark-extension-gfm';

/**
 * Markdown as the HTML that it stands for, with the tables, footnotes and struck words of GFM. HTML inside it is
 * passed on: extraction treats it as it treats any page's.
 */
export function markdownToHtml(markdown: string): string {
  return asHtml(parsed(markdown));
}

/**
 * A Markdown document as a page, with its title: its first heading of the first level, else what is given.
 *
 * @param fallback its title when it has no such heading
 */
export function markdownToPage(markdown: string, fallback: string): { title: string; html: string } {
  const tree = parsed(markdown);
  const heading = tree.children.find((node) => node.type === 'heading' && node.depth === 1);
  const stated = heading ? toString(heading).trim() : '';
  const title = stated === '' ? fallback : stated;
  // All of it is the text: there is no page around it; and the title stands above it once.
  const rest = tree.children[0] === heading ? { ...tree, children: tree.children.slice(1) } : tree;
  const head = { type: 'heading' as const, depth: 1 as const, children: [{ type: 'text' as const, value: title }] };
  const [titled, text] = [asHtml({ type: 'root', children: [head] }), asHtml(rest)];
  return { title, html: `<title>${escapeHtml(title)}</title><body>${titled}<article>${text}</article>` };
}

const parsed = (markdown: string): Root =>
  fromMarkdown(markdown, { extensions: [gfm()], mdastExtensions: [gfmFromMarkdown()] });
const asHtml = (tree: Root): string =>
  toHtml(toHast(tree, { allowDangerousHtml: true, clobberPrefix: '' }), { allowDangerousHtml: true });
