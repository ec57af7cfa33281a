import type { Element, ElementContent, Root } from 'hast';
import { announcesOthers, isLineOfClutter, isPreambleLine } from './lines';
import { absolute } from './metadata';
import {
  attribute,
  isElement,
  isText,
  label,
  textOf,
  tidy,
  type PageElement,
  type PageNode,
} from './page-tree';
import { readImage } from './pictures';

/**
 * Writes the chosen part of a page anew as a clean tree: only elements and attributes from the lists below
 * are ever made, so nothing that runs, loads or submits can be in it. The tree keeps the shape that
 * core/text relies on: text stands only in leaf blocks, collapsed, without blank edges.
 */
export function toTree(parts: PageElement[], base: string): Root {
  const blocks = tidyBlocks(parts.flatMap((part) => partBlocks(part, { base, depth: 0 })));
  return { type: 'root', children: blocks };
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
  depth: number;
}

/** Deeper lists and quotations than this are flattened: no reader follows them. */
const NESTING_LIMIT = 24;

const CONTAINERS = new Set('blockquote ul ol dl li dd dt figure figcaption details summary'.split(' '));
const HEADINGS = new Set('h1 h2 h3 h4 h5 h6'.split(' '));
const PHRASING: Readonly<Record<string, string>> = {
  a: 'a', abbr: 'abbr', b: 'strong', strong: 'strong', i: 'em', em: 'em', cite: 'cite', code: 'code', kbd: 'kbd', samp: 'samp',
  var: 'var', q: 'q', s: 's', del: 'del', strike: 's', ins: 'ins', mark: 'mark', small: 'small', sub: 'sub', sup: 'sup', time: 'time',
  dfn: 'dfn', u: 'u', ruby: 'ruby', rt: 'rt', rp: 'rp', bdi: 'bdi', bdo: 'bdo', tt: 'code',
}; // prettier-ignore

function element(
  tagName: string,
  children: ElementContent[],
  properties: Element['properties'] = {},
): Element {
  return { type: 'element', tagName, properties, children };
}

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

const NOT_BLOCKS = new Set([
  ...Object.keys(PHRASING),
  'br',
  'wbr',
  'img',
  'span',
  'font',
  'label',
  'picture',
  'math',
]);

function isBlock(node: PageElement): boolean {
  if (!NOT_BLOCKS.has(node.tagName)) return true;
  return node.childNodes.some((child) => isElement(child) && isBlock(child)) && node.tagName !== 'math';
}

/** A run of phrasing as paragraphs: two line breaks in a row are how old pages write a new paragraph. */
function paragraphsFrom(run: ElementContent[]): Element[] {
  const paragraphs: ElementContent[][] = [[]];
  run.forEach((node, index) => {
    const isBreak = (each: ElementContent | undefined) => each?.type === 'element' && each.tagName === 'br';
    const before = run
      .slice(0, index)
      .reverse()
      .find((each) => !(each.type === 'text' && each.value.trim() === ''));
    if (isBreak(node) && isBreak(before)) {
      if ((paragraphs.at(-1)?.length ?? 0) > 0) paragraphs.push([]);
    } else paragraphs.at(-1)?.push(node);
  });
  return paragraphs.map((children) => phrasingBlock('p', children)).filter((block) => block !== null);
}

/** A block that holds only phrasing, collapsed; null when nothing is left of it. */
function phrasingBlock(tagName: string, children: ElementContent[]): Element | null {
  const collapsed = collapse(children);
  return collapsed.length === 0 ? null : element(tagName, collapsed);
}

function blockFrom(node: PageElement, context: Context): Element[] {
  const { tagName } = node;
  const inner = { ...context, depth: context.depth + 1 };
  if (tagName === 'pre' || (tagName === 'div' && /\bhighlight\b/.test(label(node)) && !textOf(node).trim()))
    return codeBlock(node);
  if (tagName === 'hr') return [element('hr', [])];
  if (HEADINGS.has(tagName)) return heading(node, context);
  if (tagName === 'table') return table(node, inner);
  if (tagName === 'noscript') return [];
  if (context.depth > NESTING_LIMIT) return paragraphsFrom([{ type: 'text', value: textOf(node) }]);
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
  // A heading that only holds a picture is a picture.
  return textIn(block) === '' ? [element('figure', block.children)] : [block];
}

function codeBlock(node: PageElement): Element[] {
  const language = /\b(?:language|lang|highlight-source|brush:?)[- ]?([a-z0-9+#]{1,20})\b/i.exec(
    [node, ...node.childNodes.filter(isElement)]
      .map(
        (each) =>
          `${label(each)} ${attribute(each, 'data-lang') ? `lang-${attribute(each, 'data-lang')}` : ''}`,
      )
      .join(' '),
  )?.[1];
  const lines: string[] = [];
  const visit = (each: PageNode) => {
    if (isText(each)) lines.push(each.value);
    else if (isElement(each)) {
      if (each.tagName === 'br') lines.push('\n');
      each.childNodes.forEach(visit);
    }
  };
  visit(node);
  const code = lines
    .join('')
    .replace(/\r\n?/g, '\n')
    .replace(/^\n+|\s+$/g, '');
  if (code === '') return [];
  return [
    element('pre', [
      element(
        'code',
        [{ type: 'text', value: code }],
        language ? { className: [`language-${language.toLowerCase()}`] } : {},
      ),
    ]),
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
  let blocks = blocksOf(node, context);
  if (tagName === 'ul' || tagName === 'ol')
    blocks = blocks.map((block) => (block.tagName === 'li' ? block : element('li', [block])));
  if (blocks.length === 0) return [];
  const only = blocks[0];
  // `<li><p>text</p></li>` is a leaf like `<li>text</li>`.
  if (blocks.length === 1 && only?.tagName === 'p' && tagName !== 'details')
    return [element(tagName, only.children)];
  const start = tagName === 'ol' ? Number(attribute(node, 'start')) : NaN;
  return [element(tagName, blocks, Number.isInteger(start) && start !== 1 ? { start } : {})];
}

function figure(node: PageElement, context: Context): Element[] {
  const blocks = blocksOf(node, context);
  const hasPicture = blocks.some(holdsPicture);
  const parts = blocks.flatMap((block) =>
    block.tagName === 'figure' || (block.tagName === 'p' && holdsPicture(block) && textIn(block) === '')
      ? block.children
      : [block],
  );
  const kept = parts.filter((part): part is Element => part.type === 'element');
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
  const cells = rows.map((row) =>
    row.childNodes.filter(isElement).filter((cell) => /^t[dh]$/.test(cell.tagName)),
  );
  const columns = Math.max(0, ...cells.map((row) => row.length));
  const nested = rows.some((row) => textContains(row, 'table'));
  const isData =
    columns > 1 &&
    rows.length > 1 &&
    !nested &&
    attribute(node, 'role') !== 'presentation' &&
    cells.every((row) => row.every((cell) => tidy(textOf(cell)).length < 600));
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
    .filter((row) => textIn(row).trim() !== '' || holdsPicture(row));
  if (made.length === 0) return [];
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
  const properties: Element['properties'] = {};
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
  const href = absolute(address, context.base);
  // Links inside the page lead nowhere in a copy until footnotes are carried over; the words stay.
  if (!href || address?.startsWith('#') || children.length === 0) return children;
  return [element('a', children, { href })];
}

function image(node: PageElement, context: Context): ElementContent[] {
  const found = readImage(node, context.base);
  if (!found) return [];
  const properties: Element['properties'] = { src: found.url, alt: found.alt };
  if (found.width) properties.width = found.width;
  if (found.height) properties.height = found.height;
  return [element('img', [], properties)];
}

/** A formula as its TeX source where the page carries it, else as its text. */
function formula(node: PageElement): ElementContent[] {
  let source: string | undefined;
  const visit = (each: PageNode) => {
    if (!isElement(each)) return;
    if (each.tagName === 'annotation' && /tex/i.test(attribute(each, 'encoding') ?? ''))
      source ??= tidy(textOf(each));
    each.childNodes.forEach(visit);
  };
  visit(node);
  const value = source ?? attribute(node, 'alttext') ?? tidy(textOf(node));
  return value ? [element('code', [{ type: 'text', value }])] : [];
}

/** Collapses white space over a run of phrasing as a browser does, trims its edges, and drops what is empty. */
function collapse(children: ElementContent[]): ElementContent[] {
  let spaceBefore = true;
  let last: { value: string } | null = null;
  const visit = (nodes: ElementContent[]): ElementContent[] =>
    nodes.flatMap((node): ElementContent[] => {
      if (node.type === 'text') {
        let value = node.value.replace(/[\t\n\f\r \u200b\ufeff]+/g, ' ');
        if (spaceBefore) value = value.replace(/^ /, '');
        if (value === '') return [];
        spaceBefore = value.endsWith(' ');
        const kept = { type: 'text' as const, value };
        last = kept;
        return [kept];
      }
      if (node.type !== 'element') return [];
      if (node.tagName === 'br') {
        trimEnd(last);
        spaceBefore = true;
        return [node];
      }
      if (node.tagName === 'img') {
        spaceBefore = false;
        last = null;
        return [node];
      }
      const inner = visit(node.children);
      return inner.length > 0 || /^t[dh]$/.test(node.tagName) ? [{ ...node, children: inner }] : [];
    });
  const made = trimBreaks(visit(children));
  trimEnd(last);
  return dropEmptyText(made);
}

function trimEnd(text: { value: string } | null): void {
  if (text) text.value = text.value.replace(/ $/, '');
}

function trimBreaks(nodes: ElementContent[]): ElementContent[] {
  const isBreak = (node: ElementContent | undefined) => node?.type === 'element' && node.tagName === 'br';
  let from = 0;
  let to = nodes.length;
  while (from < to && isBreak(nodes[from])) from++;
  while (to > from && isBreak(nodes[to - 1])) to--;
  return nodes.slice(from, to);
}

function dropEmptyText(nodes: ElementContent[]): ElementContent[] {
  return nodes.flatMap((node): ElementContent[] => {
    if (node.type === 'text') return node.value === '' ? [] : [node];
    if (node.type !== 'element') return [];
    if (node.tagName === 'br' || node.tagName === 'img') return [node];
    const children = dropEmptyText(node.children);
    return children.length > 0 ? [{ ...node, children }] : [];
  });
}

/** Last pass over the blocks of a text: pictures into figures; what leads up to it and trails off behind it out. */
function tidyBlocks(blocks: Element[]): Element[] {
  const kept = blocks.map(tidyBlock).filter((block) => block !== null);
  const out = withoutTail(withoutPreamble(kept));
  // A heading with nothing under it announced something that was taken out.
  return out.filter((block, index) => {
    if (!HEADINGS.has(block.tagName)) return true;
    const next = out[index + 1];
    return (
      next !== undefined &&
      !(HEADINGS.has(next.tagName) && Number(next.tagName[1]) < Number(block.tagName[1]))
    );
  });
}

/** Paragraphs this long are where a text has begun. */
const PARAGRAPH = 90;

/** Takes away bylines, dates and buttons that stand before the first paragraph. */
function withoutPreamble(blocks: Element[]): Element[] {
  const first = blocks.findIndex((block) => textIn(block).length >= PARAGRAPH);
  return first === -1
    ? blocks
    : blocks.filter(
        (block, index) => index >= first || !isPreambleLine(textIn(block).trim()) || holdsPicture(block),
      );
}

/** A tail is short beside the text: what is longer belongs to it, whatever stands above. */
const TAIL_FROM = 0.75;

/** Cuts off what follows a heading that announces other articles, when the text itself is over. */
function withoutTail(blocks: Element[]): Element[] {
  const lengths = blocks.map((block) => textIn(block).length);
  const total = lengths.reduce((sum, length) => sum + length, 0);
  let before = 0;
  for (const [index, block] of blocks.entries()) {
    const text = textIn(block).trim();
    const announces = (HEADINGS.has(block.tagName) || text.length < 50) && announcesOthers(text);
    if (announces && before > TAIL_FROM * total) return blocks.slice(0, index);
    before += lengths[index] ?? 0;
  }
  return blocks;
}

function tidyBlock(block: Element): Element | null {
  const text = textIn(block).trim();
  if (block.tagName === 'hr') return block;
  if (text === '') {
    if (!holdsPicture(block)) return null;
    return block.tagName === 'p' ? element('figure', block.children) : block;
  }
  if (block.tagName !== 'pre' && isLineOfClutter(text)) return null;
  if ((block.tagName === 'ul' || block.tagName === 'ol') && isLinkList(block, text)) return null;
  return block;
}

/** A list whose every entry is one link, and little more: a menu or "related" list that had no telling name. */
function isLinkList(list: Element, text: string): boolean {
  const linked = linkedText(list);
  return list.children.length >= 3 && linked > 0.9 * text.length && text.length / list.children.length < 30;
}

function linkedText(node: Element): number {
  return node.children.reduce(
    (sum, child) =>
      sum + (child.type !== 'element' ? 0 : child.tagName === 'a' ? textIn(child).length : linkedText(child)),
    0,
  );
}

export function textIn(node: ElementContent): string {
  if (node.type === 'text') return node.value;
  return node.type === 'element' ? node.children.map(textIn).join('') : '';
}

function holdsPicture(node: ElementContent): boolean {
  return node.type === 'element' && (node.tagName === 'img' || node.children.some(holdsPicture));
}
