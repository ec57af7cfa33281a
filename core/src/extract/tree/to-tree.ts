import type { Element, ElementContent, Root } from 'hast';
import { toString } from 'hast-util-to-string';
import { LANGUAGE_TAG } from '../../model';
import { HEADINGS, holdsPicture, tidyBlocks, tidyPictures } from '../choose/tidy-blocks';
import { TRAILING_SIGNS } from '../metadata/headline';
import { absolute } from '../metadata/metadata';
import { fragmentOf, markTargets, TARGET } from '../page/inside-links';
import {
  attribute,
  isElement,
  isLink,
  isText,
  label,
  type PageElement,
  type PageNode,
  textContent,
  tidy,
} from '../page/page-tree';
import { cardFigure } from './embeds';
import { formula } from './formula';
import { collapse, element, figureOf } from './phrases';
import { readImage } from './pictures';

/**
 * Rewrites the chosen part of a page as a clean tree: only elements and attributes from the lists below
 * are ever made, so nothing that runs, loads or submits can be in it. The tree keeps the shape that
 * core/text relies on: text stands only in leaf blocks, collapsed, without blank edges. Links inside the text still
 * have provisional ids; see inside-links.
 *
 * @param base what relative addresses are resolved against
 * @param address of the page
 * @param kept of an article what is its text; of a part that was chosen by hand, or of a whole page, all
 */
export function toTree(
  parts: PageElement[],
  base: string,
  address: string,
  kept: 'the text of it' | 'as given' | 'all of it' = 'the text of it',
): Root {
  const targets = markTargets(parts, isKept, address);
  const blocks = parts.flatMap((part) => partBlocks(part, { base, address, targets, depth: 0 }));
  return { type: 'root', children: kept === 'the text of it' ? tidyBlocks(blocks) : tidyPictures(blocks) };
}

/** True for an element that comes through as an element of its own, so that a link can lead to it. */
function isKept(node: PageElement): boolean {
  return (
    Object.hasOwn(PHRASING, node.tagName) ||
    HEADINGS.has(node.tagName) ||
    CONTAINERS.has(node.tagName) ||
    node.tagName === 'p'
  );
}

/** A part that is a block of its own stays one; any other stands only for what is in it. */
function partBlocks(part: PageElement, context: Context): Element[] {
  if (part.tagName === 'img' || part.tagName === 'picture') return paragraphsFrom(phrasing(part, context));
  return CONTAINERS.has(part.tagName) || HEADINGS.has(part.tagName) || part.tagName === 'table'
    ? blockFrom(part, context)
    : blocksOf(part, context);
}

interface Context {
  base: string;
  address: string;
  targets: ReadonlyMap<string, string>;
  depth: number;
}

/** Deeper lists and quotations than this are flattened: no reader follows them. */
const NESTING_LIMIT = 24;

const CONTAINERS = new Set('blockquote ul ol dl li dd dt figure figcaption details summary'.split(' '));
const PHRASING: Readonly<Record<string, string>> = {
  a: 'a',
  abbr: 'abbr',
  b: 'strong',
  strong: 'strong',
  i: 'em',
  em: 'em',
  cite: 'cite',
  code: 'code',
  kbd: 'kbd',
  samp: 'samp',
  var: 'var',
  q: 'q',
  s: 's',
  del: 'del',
  strike: 's',
  ins: 'ins',
  mark: 'mark',
  small: 'small',
  sub: 'sub',
  sup: 'sup',
  time: 'time',
  dfn: 'dfn',
  u: 'u',
  ruby: 'ruby',
  rt: 'rt',
  rp: 'rp',
  bdi: 'bdi',
  bdo: 'bdo',
  tt: 'code',
};

/** The blocks that a page element comes to; runs of phrasing between blocks become paragraphs. */
function blocksOf(parent: PageElement, context: Context): Element[] {
  const blocks: Element[] = [];
  let run: ElementContent[] = [];
  const endRun = () => {
    for (const paragraph of paragraphsFrom(run)) blocks.push(paragraph);
    run = [];
  };
  for (const node of parent.childNodes) {
    if (isElement(node) && isBlock(node)) {
      endRun();
      blocks.push(...blockFrom(node, context));
    } else run.push(...phrasing(node, context));
  }
  endRun();
  return blocks;
}

const NOT_BLOCKS = new Set([...Object.keys(PHRASING), 'br', 'wbr', 'img', 'span', 'font', 'label', 'picture', 'math']);

function isBlock(node: PageElement): boolean {
  if (!NOT_BLOCKS.has(node.tagName)) return true;
  return node.childNodes.some((child) => isElement(child) && isBlock(child)) && node.tagName !== 'math';
}

/** A run of phrasing as paragraphs: two line breaks in a row are how old pages write a new paragraph. */
function paragraphsFrom(run: ElementContent[]): Element[] {
  const paragraphs: ElementContent[][] = [[]];
  run.forEach((node, index) => {
    const isBreak = (each: ElementContent | undefined) => each?.type === 'element' && each.tagName === 'br';
    let at = index - 1;
    while (isBreak(node) && at >= 0 && isBlank(run[at])) at--;
    if (isBreak(node) && isBreak(run[at])) {
      if ((paragraphs.at(-1)?.length ?? 0) > 0) paragraphs.push([]);
    } else paragraphs.at(-1)?.push(node);
  });
  return paragraphs.map((children) => phrasingBlock('p', children)).filter((block) => block !== null);
}

function isBlank(node: ElementContent | undefined): boolean {
  return node?.type === 'text' && node.value.trim() === '';
}

/** A block that holds only phrasing, collapsed; null when nothing is left of it. */
function phrasingBlock(tagName: string, children: ElementContent[]): Element | null {
  const collapsed = collapse(children);
  return collapsed.length === 0 ? null : element(tagName, collapsed);
}

function blockFrom(node: PageElement, context: Context): Element[] {
  const card = cardFigure(node);
  if (card) return [card];
  const blocks = blocksFrom(node, context);
  const target = attribute(node, TARGET);
  if (target !== undefined && blocks[0]) blocks[0].properties.id ??= target;
  const { lang } = languageOf(node);
  if (lang !== undefined) for (const block of blocks) block.properties.lang ??= lang;
  return blocks;
}

function blocksFrom(node: PageElement, context: Context): Element[] {
  const { tagName } = node;
  const inner = { ...context, depth: context.depth + 1 };
  if (tagName === 'pre' || (tagName === 'div' && /\bhighlight\b/.test(label(node)) && !textContent(node).trim()))
    return codeBlock(node, context);
  if (tagName === 'hr') return [element('hr', [])];
  if (HEADINGS.has(tagName)) return heading(node, context);
  if (tagName === 'table') return table(node, inner);
  if (tagName === 'noscript') return [];
  if (context.depth > NESTING_LIMIT) return paragraphsFrom([{ type: 'text', value: textContent(node) }]);
  if (CONTAINERS.has(tagName)) return container(node, inner);
  if (tagName === 'p') return blocksOf(node, context);
  return blocksOf(node, context);
}

function heading(node: PageElement, context: Context): Element[] {
  const block = phrasingBlock(
    node.tagName,
    node.childNodes.flatMap((child) => phrasing(child, context)),
  );
  if (!block) return [];
  withoutSign(block);
  if (block.children.length === 0) return [];
  // A heading that only holds a picture is a picture.
  return toString(block) === '' ? [figureOf(block.children)] : [block];
}

const isSign = (node: ElementContent | undefined): boolean =>
  node?.type === 'element' && node.tagName === 'a' && SIGN.test(toString(node));

/** Takes the sign of a permanent link from a heading: a link of its own at either end, or the end of the words. */
function withoutSign(block: Element): void {
  if (isSign(block.children.at(-1))) block.children.pop();
  if (isSign(block.children[0]) && block.children.length > 1) {
    block.children.shift();
    const [start] = block.children;
    if (start?.type === 'text') start.value = start.value.trimStart();
  }
  const end = block.children.at(-1);
  if (end?.type === 'text') end.value = end.value.replace(TRAILING_SIGNS, '').trimEnd();
  if (end?.type === 'text' && end.value === '') block.children.pop();
}

const SIGN = /^\s*(?:(?:[#¶§🔗∞]|\[edit\])\s*)?$/u;

/** `mailto:` with an address alone (RFC 6068): what a page would have written to it is left out. Null for any other link. */
function mailAddress(href: string | undefined): string | null {
  const address = /^\s*mailto:([^\s?<>"@]{1,64}@[a-z0-9.-]{1,190})(?:\?|\s*$)/i.exec(href ?? '')?.[1];
  return address === undefined ? null : `mailto:${address}`;
}

function codeBlock(node: PageElement, context: Context): Element[] {
  const language = /\b(?:language|lang|highlight-source|brush:?)[- ]?([a-z0-9+#]{1,20})\b/i.exec(
    [node, ...node.childNodes.filter(isElement)]
      .map((each) => `${label(each)} ${attribute(each, 'data-lang') ? `lang-${attribute(each, 'data-lang')}` : ''}`)
      .join(' '),
  )?.[1];
  const pieces: ElementContent[] = [];
  const say = (value: string, into: ElementContent[]) => {
    const last = into.at(-1);
    if (last?.type === 'text') last.value += value;
    else into.push({ type: 'text', value });
  };
  const visit = (each: PageNode, into: ElementContent[]) => {
    if (isText(each)) say(each.value.replace(/\r\n?/g, '\n'), into);
    else if (!isElement(each)) return;
    else if (each.tagName === 'br') say('\n', into);
    // Links to places on the page are the numbers of lines.
    else if (isLink(each) && !fragmentOf(attribute(each, 'href'), context.address)) {
      const inside: ElementContent[] = [];
      each.childNodes.forEach((child) => visit(child, inside));
      for (const piece of link(each, inside, context))
        if (piece.type === 'text') say(piece.value, into);
        else into.push(piece);
    } else each.childNodes.forEach((child) => visit(child, into));
  };
  visit(node, pieces);
  const [first] = pieces;
  if (first?.type === 'text') first.value = first.value.replace(/^\n+/, '');
  const last = pieces.at(-1);
  if (last?.type === 'text') last.value = last.value.trimEnd();
  const code = pieces.filter((piece) => piece.type !== 'text' || piece.value !== '');
  if (code.every((piece) => toString(piece).trim() === '')) return [];
  return [
    element('pre', [element('code', code, language ? { className: [`language-${language.toLowerCase()}`] } : {})]),
  ];
}

function container(node: PageElement, context: Context): Element[] {
  const { tagName } = node;
  if (tagName === 'figure') return figure(node, context);
  const hasBlocks = node.childNodes.some((child) => isElement(child) && isBlock(child));
  if (!hasBlocks) {
    const block = phrasingBlock(
      tagName,
      node.childNodes.flatMap((child) => phrasing(child, context)),
    );
    return block ? [block] : [];
  }
  let blocks = ofOneLine(node, blocksOf(node, context));
  if (tagName === 'ul' || tagName === 'ol')
    blocks = blocks.map((block) =>
      block.tagName === 'li' ? block : element('li', block.tagName === 'p' ? block.children : [block]),
    );
  // An entry directly inside another has lost its list: only what is in it is kept.
  if (/^(?:li|d[dt])$/.test(tagName)) blocks = blocks.flatMap(withoutEntry);
  if (blocks.length === 0) return [];
  const only = blocks[0];
  // `<li><p>text</p></li>` is a leaf like `<li>text</li>`.
  if (blocks.length === 1 && only?.tagName === 'p' && tagName !== 'details') return [element(tagName, only.children)];
  const start = tagName === 'ol' ? Number(attribute(node, 'start')) : NaN;
  return [element(tagName, blocks, Number.isInteger(start) && start !== 1 ? { start } : {})];
}

/** Longer than this is no line of a list, but paragraphs. In characters. */
const MAX_LINE = 160;

/**
 * An amount, its measure and what is measured are one line, though their spans have blocks in them: a page's style sheet has
 * them stand beside each other.
 */
function ofOneLine(entry: PageElement, blocks: Element[]): Element[] {
  const isLine =
    /^(?:li|d[dt])$/.test(entry.tagName) &&
    blocks.length > 1 &&
    blocks.every((block) => block.tagName === 'p' && !holdsPicture(block)) &&
    entry.childNodes.every((child) => !isElement(child) || NOT_BLOCKS.has(child.tagName)) &&
    blocks.reduce((sum, block) => sum + toString(block).length, 0) <= MAX_LINE;
  if (!isLine) return blocks;
  const words = blocks.flatMap((block): ElementContent[] => [...block.children, { type: 'text', value: ' ' }]);
  const line = phrasingBlock('p', words);
  return line ? [line] : [];
}

function withoutEntry(block: Element): Element[] {
  if (!/^(?:li|d[dt])$/.test(block.tagName)) return [block];
  const inner = block.children.filter((child): child is Element => child.type === 'element');
  return inner.some((child) => child.tagName === 'p' || CONTAINERS.has(child.tagName) || HEADINGS.has(child.tagName))
    ? inner
    : paragraphsFrom(block.children);
}

function figure(node: PageElement, context: Context): Element[] {
  const blocks = blocksOf(node, context);
  const hasPicture = blocks.some(holdsPicture);
  const parts = blocks.flatMap((block) =>
    block.tagName === 'figure' || (block.tagName === 'p' && holdsPicture(block) && toString(block) === '')
      ? block.children
      : [block],
  );
  const kept = parts.filter((part): part is Element => part.type === 'element' && part.tagName !== 'br');
  if (kept.length === 0) return [];
  // A figure around text alone (a pull-quote, a table) is only a wrapper; its caption is then a paragraph.
  return hasPicture
    ? [element('figure', kept)]
    : kept.map((part) => (part.tagName === 'figcaption' ? { ...part, tagName: 'p' } : part));
}

/** Data tables stay tables; a table that only lays out the page comes apart into its blocks. */
function table(node: PageElement, context: Context): Element[] {
  const rows: PageElement[] = [];
  let caption: PageElement | undefined;
  const collect = (parent: PageElement) => {
    for (const child of parent.childNodes.filter(isElement)) {
      if (child.tagName === 'tr') rows.push(child);
      else if (child.tagName === 'caption') caption ??= child;
      else if (/^t(?:body|head|foot)$/.test(child.tagName)) collect(child);
    }
  };
  collect(node);
  const cells = rows.map((row) => row.childNodes.filter(isElement).filter((cell) => /^t[dh]$/.test(cell.tagName)));
  const columns = Math.max(0, ...cells.map((row) => row.length));
  const nested = rows.some((row) => textContains(row, 'table'));
  const isData =
    columns > 1 &&
    rows.length > 1 &&
    !nested &&
    attribute(node, 'role') !== 'presentation' &&
    cells.every((row) => row.every((cell) => tidy(textContent(cell)).length < 600));
  if (!isData) return cells.flat().flatMap((cell) => blocksOf(cell, context));
  const made = cells
    .map((row) =>
      element(
        'tr',
        row.map((cell) => {
          const content = collapse(cell.childNodes.flatMap((child) => phrasing(child, context)));
          const spans: Element['properties'] = {};
          for (const [name, property] of [
            ['colspan', 'colSpan'],
            ['rowspan', 'rowSpan'],
          ] as const) {
            const span = Number(attribute(cell, name));
            if (Number.isInteger(span) && span > 1 && span < 100) spans[property] = span;
          }
          return element(cell.tagName, content, spans);
        }),
      ),
    )
    .filter((row) => toString(row).trim() !== '' || holdsPicture(row));
  // One row says nothing that needs a table, nor one column, nor rows of which only one had anything in it.
  if (made.length < 2 || made.every((row) => row.children.length < 2))
    return cells.flat().flatMap((cell) => blocksOf(cell, context));
  const captionBlock =
    caption &&
    phrasingBlock(
      'caption',
      caption.childNodes.flatMap((child) => phrasing(child, context)),
    );
  return [element('table', [...(captionBlock ? [captionBlock] : []), element('tbody', made)])];
}

function textContains(node: PageElement, tagName: string): boolean {
  return node.childNodes.some(
    (child) => isElement(child) && (child.tagName === tagName || textContains(child, tagName)),
  );
}

/** The phrasing that a node comes to; blocks inside (in a cell, say) are set apart by line breaks. */
function phrasing(node: PageNode, context: Context): ElementContent[] {
  if (isText(node)) return [{ type: 'text', value: node.value }];
  if (!isElement(node)) return [];
  const { tagName } = node;
  if (tagName === 'br') return [element('br', [])];
  if (tagName === 'img') return image(node, context);
  if (tagName === 'math') return formula(node);
  if (/^(?:script|style|noscript|template|svg|source|object|iframe|wbr)$/.test(tagName)) return [];
  const children = node.childNodes.flatMap((child) => phrasing(child, context));
  const kept = Object.hasOwn(PHRASING, tagName) ? PHRASING[tagName] : undefined;
  if (!kept) return isBlock(node) && children.length > 0 ? [element('br', []), ...children] : children;
  if (kept === 'a') return link(node, children, context);
  const properties = { ...targetOf(node), ...languageOf(node) };
  const title = attribute(node, 'title');
  if (kept === 'abbr' && title) properties.title = title.slice(0, 300);
  if (kept === 'time' && attribute(node, 'datetime'))
    properties.dateTime = (attribute(node, 'datetime') ?? '').slice(0, 60);
  if ((kept === 'bdo' || kept === 'bdi') && /^(?:rtl|ltr)$/.test(attribute(node, 'dir') ?? ''))
    properties.dir = attribute(node, 'dir') ?? 'ltr';
  return children.length > 0 ? [element(kept, children, properties)] : [];
}

function link(node: PageElement, children: ElementContent[], context: Context): ElementContent[] {
  const address = attribute(node, 'href');
  const href = mailAddress(address) ?? absolute(address, context.base);
  if (children.length === 0) return [];
  const fragment = fragmentOf(address, context.address);
  const target = fragment && context.targets.get(fragment);
  if (target) return [element('a', children, { href: `#${target}`, ...targetOf(node) })];
  // A link that leads to its own page and to nothing that came through is only its words.
  return !href || fragment || address?.startsWith('#')
    ? children
    : [element('a', children, { href, ...targetOf(node) })];
}

function targetOf(node: PageElement): Element['properties'] {
  const target = attribute(node, TARGET);
  return target === undefined ? {} : { id: target };
}

/** What a part of the page is written in, where it says so: a voice is chosen by it, and hyphens. */
function languageOf(node: PageElement): Element['properties'] {
  const lang = attribute(node, 'lang') ?? attribute(node, 'xml:lang');
  return lang !== undefined && LANGUAGE_TAG.test(lang) ? { lang } : {};
}

function image(node: PageElement, context: Context): ElementContent[] {
  const found = readImage(node, context.base);
  if (!found) return [];
  const properties: Element['properties'] = { src: found.url, alt: found.alt };
  if (found.width) properties.width = found.width;
  if (found.height) properties.height = found.height;
  return [element('img', [], properties)];
}
