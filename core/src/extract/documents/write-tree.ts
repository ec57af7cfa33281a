import type { Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import { toHtml } from 'hast-util-to-html';
import { toMdast } from 'hast-util-to-mdast';
import { gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import { visit } from 'unist-util-visit';
import { cardWords, TREE_SCHEMA } from '../../model';

/** A clean tree as HTML. */
export function treeToHtml(tree: Root): string {
  return toHtml(withCardWords(tree));
}

/** A clean tree as CommonMark with GFM tables. */
export function treeToMarkdown(tree: Root): string {
  return toMarkdown(toMdast(withCardWords(tree)), { extensions: [gfmToMarkdown()], bullet: '-' });
}

/** A card's words stand in its title; outside the reader they have to be seen as well. */
function withCardWords(tree: Root): Root {
  const copy = sanitize(tree, TREE_SCHEMA) as Root;
  visit(copy, 'element', (node) => {
    if (node.properties.dataCard === undefined) return;
    node.children.push({ type: 'text', value: cardWords(node.properties) });
  });
  return copy;
}
