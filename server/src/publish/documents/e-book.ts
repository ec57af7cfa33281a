import {
  asGrid,
  type HandedOn,
  type Head,
  markdownTree,
  oneLine,
  shownParts,
  sourceLine,
  webAddress,
} from '@dorvel/core/formats';
import type { Copy, Item } from '@dorvel/core/model';
import { BOOK_WORDS, inMinutes, PURPOSE_WORDS, sourceOf, titleOf } from '@dorvel/core/wording';
import { strToU8, zip, type Zippable } from 'fflate';
import type { Element, ElementContent, Root, RootContent } from 'hast';
import { toXast } from 'hast-util-to-xast';
import { visit } from 'unist-util-visit';
import type { Root as XmlRoot } from 'xast';
import { toXml } from 'xast-util-to-xml';
import type { DocumentPicture } from './pictures';

/** A text of a dossier, as it stands in the library. */
export interface BookText {
  item: Item;
  /** Null where there is none: its chapter says so. */
  copy: Copy | null;
}

const XHTML = 'http://www.w3.org/1999/xhtml';
const OPS = 'http://www.idpf.org/2007/ops';
const MATHML = 'http://www.w3.org/1998/Math/MathML';

/**
 * A dossier with its texts as an e-book (EPUB 3.3, W3C 2025; EPUB Accessibility 1.1), for the reader's own use: first the dossier,
 * leading to its texts, then a chapter each.
 *
 * @param pictures by hash; what is not in it is told by its words
 */
export async function eBook(
  handedOn: HandedOn,
  texts: readonly BookText[],
  pictures: ReadonlyMap<string, DocumentPicture>,
): Promise<Buffer> {
  const { compiled, owner, updatedAt } = handedOn;
  const title = oneLine(compiled.title);
  const language = commonest(texts.flatMap(({ copy }) => copy?.language ?? [])) ?? 'en';
  const chapters = texts.map((text, at) => ({
    ...text,
    file: `text-${at + 1}.xhtml`,
    title: oneLine(titleOf(text.item)),
  }));
  const fileOf = new Map(chapters.map(({ item, file }) => [item.id, file]));
  const used = new Set<string>();
  const inBook = (hash: string) => {
    const picture = pictures.get(hash);
    if (picture) used.add(hash);
    return picture ? { file: `${hash.slice(0, 16)}.${picture.type}`, picture } : null;
  };
  const documents = [
    { file: 'dossier.xhtml', title, markup: page(title, 'en', dossierBody(handedOn, fileOf, inBook)), mathml: false },
    ...chapters.map((chapter) => {
      const { body, mathml } = chapterBody(chapter, inBook);
      return {
        file: chapter.file,
        title: chapter.title,
        markup: page(chapter.title, chapter.copy?.language ?? language, body),
        mathml,
      };
    }),
  ];
  const cover = compiled.lead === null ? null : inBook(compiled.lead);
  const manifest = [
    element('item', { id: 'nav', href: 'nav.xhtml', 'media-type': 'application/xhtml+xml', properties: 'nav' }),
    element('item', { id: 'style', href: 'style.css', 'media-type': 'text/css' }),
    ...documents.map(({ file, mathml }) =>
      element('item', {
        ...{ id: idOf(file), href: file, 'media-type': 'application/xhtml+xml' },
        ...(mathml ? { properties: 'mathml' } : {}),
      }),
    ),
    ...[...used].flatMap((hash) => {
      const found = inBook(hash);
      if (!found) return [];
      const type = found.picture.type === 'jpg' ? 'image/jpeg' : 'image/png';
      return element('item', {
        ...{ id: `p${hash.slice(0, 16)}`, href: `pictures/${found.file}`, 'media-type': type },
        ...(hash === compiled.lead ? { properties: 'cover-image' } : {}),
      });
    }),
  ];
  const meta = (property: string, value: string) => element('meta', { property }, [text(value)]);
  const opf = element(
    'package',
    { xmlns: 'http://www.idpf.org/2007/opf', version: '3.0', 'unique-identifier': 'id', 'xml:lang': language },
    [
      element('metadata', { 'xmlns:dc': 'http://purl.org/dc/elements/1.1/' }, [
        element('dc:identifier', { id: 'id' }, [text(`urn:uuid:${compiled.id}`)]),
        element('dc:title', {}, [text(title)]),
        element('dc:language', {}, [text(language)]),
        ...(owner === null ? [] : [element('dc:creator', {}, [text(oneLine(owner))])]),
        meta('dcterms:modified', `${new Date(updatedAt).toISOString().slice(0, 19)}Z`),
        meta('schema:accessMode', 'textual'),
        ...(used.size > 0 ? [meta('schema:accessMode', 'visual')] : []),
        meta('schema:accessModeSufficient', 'textual'),
        ...['tableOfContents', 'readingOrder', 'structuralNavigation'].map((each) =>
          meta('schema:accessibilityFeature', each),
        ),
        meta('schema:accessibilityHazard', 'unknown'),
        meta('schema:accessibilitySummary', BOOK_WORDS.access),
        ...(cover ? [element('meta', { name: 'cover', content: `p${(compiled.lead ?? '').slice(0, 16)}` })] : []),
      ]),
      element('manifest', {}, manifest),
      element(
        'spine',
        {},
        documents.map(({ file }) => element('itemref', { idref: idOf(file) })),
      ),
    ],
  );
  const nav = page('Contents', 'en', [
    html('nav', { 'epub:type': 'toc', id: 'toc', role: 'doc-toc' }, [
      html('h1', {}, [text('Contents')]),
      html(
        'ol',
        {},
        documents.map((each) => html('li', {}, [html('a', { href: each.file }, [text(each.title)])])),
      ),
    ]),
  ]);
  const container = element('container', { version: '1.0', xmlns: 'urn:oasis:names:tc:opendocument:xmlns:container' }, [
    element('rootfiles', {}, [
      element('rootfile', { 'full-path': 'book/package.opf', 'media-type': 'application/oebps-package+xml' }),
    ]),
  ]);
  const files: Zippable = {
    // OCF 3.3, 4.2.3: first, and not compressed, so that it stands where its readers look for it.
    mimetype: [strToU8('application/epub+zip'), { level: 0 }],
    'META-INF/container.xml': strToU8(xml(container)),
    'book/package.opf': strToU8(xml(opf)),
    'book/nav.xhtml': strToU8(nav),
    'book/style.css': strToU8(STYLE),
    ...Object.fromEntries(documents.map(({ file, markup }) => [`book/${file}`, strToU8(markup)])),
  };
  for (const hash of used) {
    const found = inBook(hash);
    if (found) files[`book/pictures/${found.file}`] = [new Uint8Array(found.picture.bytes), { level: 0 }];
  }
  return new Promise((resolve, reject) => {
    zip(files, { mtime: new Date(Math.max(updatedAt, Date.UTC(1980, 0, 2))) }, (error, data) => {
      if (error) reject(error);
      else resolve(Buffer.from(data));
    });
  });
}

type InBook = (hash: string) => { file: string; picture: DocumentPicture } | null;

/** XML 1.0 (2.2) has no control characters but tab and line ends. */
const printable = (words: string): string => words.replace(/[^\P{Cc}\t\n]/gu, '').replace(/[\uFFFE\uFFFF]/g, '');
const text = (value: string) => ({ type: 'text' as const, value: printable(value) });
const html = (tagName: string, properties: Record<string, string>, children: ElementContent[] = []): Element => ({
  ...{ type: 'element', tagName, properties, children },
});
type Xml = ReturnType<typeof element>;
const element = (
  name: string,
  attributes: Record<string, string>,
  children: (ReturnType<typeof text> | { type: 'element'; name: string })[] = [],
) => ({ type: 'element' as const, name, attributes, children });

/** XML 1.0 (2.4): what ends a section of characters may not stand in a text as it is. */
const written = (tree: Parameters<typeof toXml>[0]): string => toXml(tree).replaceAll(']]>', ']]&gt;');

function xml(root: Xml): string {
  const tree = {
    type: 'root',
    children: [{ type: 'instruction', name: 'xml', value: 'version="1.0" encoding="utf-8"' }, root],
  };
  return written(tree as XmlRoot);
}

function page(title: string, language: string, body: ElementContent[]): string {
  const root: Root = {
    type: 'root',
    children: [
      html('html', { xmlns: XHTML, 'xmlns:epub': OPS, lang: language, 'xml:lang': language }, [
        html('head', {}, [
          html('title', {}, [text(title === '' ? 'Untitled' : title)]),
          html('link', { rel: 'stylesheet', type: 'text/css', href: 'style.css' }),
        ]),
        html('body', {}, body),
      ]),
    ],
  };
  return `<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE html>\n${written(toXast(root))}`;
}

const idOf = (file: string): string => `d-${file.replace('.xhtml', '')}`;

function commonest(values: readonly string[]): string | null {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** The dossier itself, its items leading to their chapters. */
function dossierBody(handedOn: HandedOn, fileOf: ReadonlyMap<string, string>, inBook: InBook): ElementContent[] {
  const { compiled, owner, table } = handedOn;
  const toChapter = (item: Item, words: string) =>
    html('a', { href: fileOf.get(item.id) ?? 'dossier.xhtml' }, [text(oneLine(words))]);
  const itemBlocks = (item: Item): ElementContent[] => {
    const minutes = item.capture.page?.minutes;
    return [
      html('p', { class: 'title' }, [toChapter(item, titleOf(item))]),
      html('p', { class: 'small' }, [
        text(`${oneLine(sourceOf(item))}${minutes === undefined ? '' : ` · ${inMinutes(minutes)}`}`),
      ]),
    ];
  };
  const picture = (hash: string, words: string): ElementContent[] => {
    const found = inBook(hash);
    return found ? [html('img', { src: `pictures/${found.file}`, alt: words })] : [];
  };
  const blocks = shownParts(compiled).flatMap((part): ElementContent[] => {
    switch (part.kind) {
      case 'heading':
        return [html(`h${part.depth + 1}`, {}, [text(oneLine(part.text))])];
      case 'item':
        return itemBlocks(part.item);
      case 'search':
        return part.items.flatMap(itemBlocks);
      case 'passage':
        return [
          html('blockquote', {}, [
            ...part.words.split('\n\n').map((each) => html('p', {}, [text(each)])),
            html('p', { class: 'small' }, [toChapter(part.of, sourceLine(part.of))]),
          ]),
        ];
      case 'picture': {
        const shown = picture(part.hash, oneLine(part.caption));
        return [
          html('figure', {}, [
            ...shown,
            html('figcaption', {}, [toChapter(part.of, oneLine(part.caption) || sourceLine(part.of))]),
          ]),
        ];
      }
      case 'note':
        return [
          html('div', { class: 'note' }, [
            html('p', { class: 'small' }, [text(PURPOSE_WORDS[part.purpose])]),
            ...ownBlocks(part.markdown),
          ]),
        ];
      case 'gone':
        return [];
    }
  });
  return [
    html('h1', {}, [text(oneLine(compiled.title))]),
    ...(owner === null ? [] : [html('p', { class: 'small' }, [text(oneLine(owner))])]),
    ...(compiled.lead === null ? [] : [html('div', {}, picture(compiled.lead, ''))]),
    ...ownBlocks(compiled.introduction),
    ...blocks,
    ...(table === null ? [] : factsBlock(table)),
    ...ownBlocks(compiled.closing),
  ];
}

function factsBlock(table: NonNullable<HandedOn['table']>): ElementContent[] {
  const grid = asGrid(table);
  if (!grid) return [];
  const cell = (tag: string, head: Head) =>
    html(tag, {}, [text(typeof head === 'string' ? head : oneLine(titleOf(head)))]);
  const row = (cells: Element[]) => html('tr', {}, cells);
  return [
    html('table', {}, [
      html('thead', {}, [row([cell('td', ''), ...grid.columns.map((head) => cell('th', head))])]),
      html(
        'tbody',
        {},
        grid.rows.map(({ head, cells }) => row([cell('th', head), ...cells.map((each) => cell('td', each ?? '–'))])),
      ),
    ]),
  ];
}

const isElement = (node: RootContent | ElementContent): node is Element => node.type === 'element';
const ownBlocks = (markdown: string): ElementContent[] =>
  markdown === '' ? [] : inBookForm(markdownTree(markdown), () => null).filter(isElement);

/** A text with where it is from. */
function chapterBody(
  { item, copy, title }: BookText & { title: string },
  inBook: InBook,
): { body: ElementContent[]; mathml: boolean } {
  const address = webAddress(item);
  const source = [
    text(oneLine(sourceOf(item))),
    ...(address === null ? [] : [text(' · '), html('a', { href: new URL(address).href }, [text(address)])]),
  ];
  const blocks = copy ? inBookForm(copy.tree, inBook).filter(isElement) : [];
  let mathml = false;
  for (const block of blocks)
    visit(block, 'element', (node) => {
      if (node.tagName === 'math') mathml = true;
    });
  const said = blocks.length > 0 ? blocks : [html('p', {}, [text(BOOK_WORDS.noText)])];
  return { body: [html('h1', {}, [text(title)]), html('p', { class: 'small' }, source), ...said], mathml };
}

/** A clean tree as a book may have it: its pictures those of the book, its links whole, its ids there. */
function inBookForm(given: Root, inBook: InBook): RootContent[] {
  const tree = structuredClone(given);
  const ids = new Set<string>();
  visit(tree, 'element', ({ properties }) => {
    if (typeof properties.id === 'string') ids.add(properties.id);
  });
  visit(tree, 'element', (node, at, parent) => {
    const { properties } = node;
    if (node.tagName === 'img' && parent && at !== undefined) {
      const hash = /^\/api\/pictures\/([0-9a-f]{64})\.webp$/.exec(
        typeof properties.src === 'string' ? properties.src : '',
      )?.[1];
      const found = hash === undefined ? null : inBook(hash);
      const words = typeof properties.alt === 'string' ? oneLine(properties.alt) : '';
      if (found) node.properties = { src: `pictures/${found.file}`, alt: words };
      // The text says what stood there, where anything does.
      else parent.children.splice(at, 1, words === '' ? text('') : html('span', { class: 'small' }, [text(words)]));
    }
    if (node.tagName === 'a') {
      const href = typeof properties.href === 'string' ? properties.href : '';
      const inside = href.startsWith('#') && ids.has(href.slice(1));
      const outside = /^https?:/i.test(href) && URL.canParse(href);
      // A card's marks are for our own pages.
      node.properties = inside ? { href } : outside ? { href: new URL(href).href } : {};
      if (typeof properties.id === 'string') node.properties.id = properties.id;
    }
    if (node.tagName === 'time') delete properties.dateTime;
    if (node.tagName === 'math') properties.xmlns = MATHML;
  });
  visit(tree, 'text', (node) => {
    node.value = printable(node.value);
  });
  return tree.children;
}

const STYLE = `body{font-family:serif;line-height:1.5}img{max-width:100%;height:auto}.small{font-size:.85em;color:#555}.title{font-weight:bold;margin-bottom:0}
blockquote{margin:1em 0;padding-left:1em;border-left:2px solid #888}.note{margin:1em 0;padding-left:1em;border-left:4px solid #888}
table{border-collapse:collapse}th,td{border-bottom:1px solid #aaa;padding:.3em .6em .3em 0;text-align:left;vertical-align:top}figure{margin:1em 0}`;
