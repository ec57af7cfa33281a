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
import type { Item } from '@dorvel/core/model';
import { inMinutes, PURPOSE_WORDS, sourceOf, titleOf } from '@dorvel/core/wording';
import {
  AlignmentType,
  BorderStyle,
  Document,
  ExternalHyperlink,
  FootnoteReferenceRun,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  LineRuleType,
  Packer,
  Paragraph,
  type ParagraphChild,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import type { Element, ElementContent, RootContent } from 'hast';
import { toString } from 'hast-util-to-string';
import type { DocumentPicture } from './pictures';

/** Points across a page between its margins, at 96 to the inch. */
const PAGE_WIDTH = 600;

type Block = Paragraph | Table;

/**
 * A dossier for a word processor (Office Open XML, ECMA-376): styles and headings, links, pictures with what they show, and a
 * footnote with the source of each passage.
 *
 * @param pictures by hash; what is not in it is left out
 */
export async function wordDocument(
  handedOn: HandedOn,
  pictures: ReadonlyMap<string, DocumentPicture>,
): Promise<Buffer> {
  const { compiled, owner, table } = handedOn;
  const footnotes: Record<string, { children: Paragraph[] }> = {};
  const cite = (item: Item): FootnoteReferenceRun => {
    const number = Object.keys(footnotes).length + 1;
    const address = webAddress(item);
    const children: ParagraphChild[] = [new TextRun(oneLine(sourceLine(item)))];
    if (address !== null) children.push(new TextRun(', '), linkRun(address, address));
    footnotes[number] = { children: [new Paragraph({ children })] };
    return new FootnoteReferenceRun(number);
  };
  const picture = (hash: string, words: string): Paragraph[] => {
    const found = pictures.get(hash);
    if (!found) return [];
    const scale = Math.min(1, PAGE_WIDTH / found.width);
    const title = words === '' ? 'A picture' : words;
    const transformation = { width: Math.round(found.width * scale), height: Math.round(found.height * scale) };
    return [
      new Paragraph({
        children: [
          new ImageRun({
            type: found.type,
            data: found.bytes,
            transformation,
            altText: { title, description: title, name: title },
          }),
        ],
        keepNext: true,
      }),
    ];
  };
  const blocks = shownParts(compiled).flatMap((part): Block[] => {
    switch (part.kind) {
      case 'heading':
        return [
          new Paragraph({
            text: oneLine(part.text),
            heading: part.depth === 1 ? HeadingLevel.HEADING_1 : HeadingLevel.HEADING_2,
          }),
        ];
      case 'item':
        return itemBlocks(part.item);
      case 'search':
        return part.items.flatMap(itemBlocks);
      case 'passage': {
        const paragraphs = part.words.split('\n\n');
        return paragraphs.map(
          (words, at) =>
            new Paragraph({
              style: 'Quotation',
              children: [new TextRun(printable(words)), ...(at === paragraphs.length - 1 ? [cite(part.of)] : [])],
            }),
        );
      }
      case 'picture':
        return [
          ...picture(part.hash, oneLine(part.caption)),
          new Paragraph({
            style: 'Caption',
            children: [new TextRun(oneLine(part.caption) || oneLine(sourceLine(part.of))), cite(part.of)],
          }),
        ];
      case 'note':
        return [
          new Paragraph({ style: 'Purpose', text: PURPOSE_WORDS[part.purpose], keepNext: true }),
          ...markdownBlocks(part.markdown),
        ];
      case 'gone':
        return [];
    }
  });
  const document = new Document({
    title: oneLine(compiled.title),
    ...(owner === null ? {} : { creator: oneLine(owner) }),
    styles: STYLES,
    numbering: { config: [NUMBERED] },
    footnotes,
    sections: [
      {
        children: [
          new Paragraph({ text: oneLine(compiled.title), heading: HeadingLevel.TITLE }),
          ...(owner === null ? [] : [new Paragraph({ style: 'Caption', text: oneLine(owner) })]),
          ...(compiled.lead === null ? [] : picture(compiled.lead, '')),
          ...markdownBlocks(compiled.introduction),
          ...blocks,
          ...(table === null ? [] : factsTable(table)),
          ...markdownBlocks(compiled.closing),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}

/** XML 1.0 (2.2) has no control characters but tab and line ends. */
const printable = (words: string): string => words.replace(/[^\P{Cc}\t\n]/gu, '');

const linkRun = (words: string, link: string): ExternalHyperlink =>
  new ExternalHyperlink({ link, children: [new TextRun({ text: oneLine(words), style: 'Hyperlink' })] });

function linked(item: Item, isBold = false): ParagraphChild {
  const address = webAddress(item);
  const text = oneLine(titleOf(item));
  return address === null
    ? new TextRun({ text, ...(isBold ? { style: 'Strong' } : {}) })
    : new ExternalHyperlink({
        link: address,
        children: [new TextRun({ text, style: isBold ? 'StrongLink' : 'Hyperlink' })],
      });
}

function itemBlocks(item: Item): Paragraph[] {
  const minutes = item.capture.page?.minutes;
  const source = `${oneLine(sourceOf(item))}${minutes === undefined ? '' : ` · ${inMinutes(minutes)}`}`;
  return [
    new Paragraph({ children: [linked(item, true)], keepNext: true }),
    new Paragraph({ style: 'Caption', text: source }),
  ];
}

function factsTable(table: NonNullable<HandedOn['table']>): Block[] {
  const grid = asGrid(table);
  if (!grid) return [];
  const cell = (children: ParagraphChild[]) => new TableCell({ children: [new Paragraph({ children })] });
  const words = (text: string, isBold = false) => [new TextRun({ text, ...(isBold ? { style: 'Strong' } : {}) })];
  const headOf = (head: Head) => cell(typeof head === 'string' ? words(head, true) : [linked(head)]);
  return [
    new Paragraph({ text: 'What the pages state', heading: HeadingLevel.HEADING_1 }),
    new Table({
      width: { size: 100, type: WidthType.PERCENTAGE },
      rows: [
        new TableRow({ tableHeader: true, children: [cell([]), ...grid.columns.map(headOf)] }),
        ...grid.rows.map(
          ({ head, cells }) =>
            new TableRow({
              cantSplit: true,
              children: [headOf(head), ...cells.map((each) => cell(words(each ?? '–')))],
            }),
        ),
      ],
    }),
  ];
}

/** What the reader wrote, block by block. */
function markdownBlocks(markdown: string): Block[] {
  return markdown === '' ? [] : markdownTree(markdown).children.flatMap((node) => blocksOf(node, {}));
}

interface Around {
  list?: 'ul' | 'ol';
  depth?: number;
  isQuoted?: boolean;
}

function blocksOf(node: RootContent | ElementContent, around: Around): Block[] {
  if (node.type !== 'element') return [];
  const { tagName } = node;
  const level = /^h([1-6])$/.exec(tagName)?.[1];
  if (level)
    return [
      new Paragraph({
        children: runs(node),
        heading: Number(level) < 3 ? HeadingLevel.HEADING_3 : HeadingLevel.HEADING_4,
      }),
    ];
  if (tagName === 'ul' || tagName === 'ol') {
    const depth = around.list === undefined ? 0 : (around.depth ?? 0) + 1;
    return node.children.flatMap((child) => blocksOf(child, { ...around, list: tagName, depth }));
  }
  if (tagName === 'li') {
    const isNested = (child: ElementContent) => child.type === 'element' && /^(?:ul|ol)$/.test(child.tagName);
    const inLine = { ...node, children: node.children.filter((child) => !isNested(child)) };
    const marks =
      around.list === 'ol'
        ? { numbering: { reference: NUMBERED.reference, level: Math.min(around.depth ?? 0, 2) } }
        : { bullet: { level: Math.min(around.depth ?? 0, 2) } };
    return [
      new Paragraph({ children: runs(inLine), ...marks }),
      ...node.children.filter(isNested).flatMap((child) => blocksOf(child, around)),
    ];
  }
  if (tagName === 'blockquote') return node.children.flatMap((child) => blocksOf(child, { ...around, isQuoted: true }));
  if (tagName === 'table') return [ownTable(node)];
  if (tagName === 'hr') return [new Paragraph({ thematicBreak: true })];
  if (tagName === 'pre')
    return [new Paragraph({ children: [new TextRun({ text: printable(toString(node)), font: 'Courier New' })] })];
  return [new Paragraph({ children: runs(node), ...(around.isQuoted ? { style: 'Quotation' } : {}) })];
}

function ownTable(node: Element): Table {
  const rows: Element[] = [];
  const collect = (each: ElementContent) => {
    if (each.type !== 'element') return;
    if (each.tagName === 'tr') rows.push(each);
    else each.children.forEach(collect);
  };
  collect(node);
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: rows.map(
      (row) =>
        new TableRow({
          children: row.children
            .filter((each) => each.type === 'element')
            .map((each) => new TableCell({ children: [new Paragraph({ children: runs(each) })] })),
        }),
    ),
  });
}

interface Manner {
  bold?: boolean;
  italics?: boolean;
  strike?: boolean;
  font?: string;
}

function runs(node: Element, manner: Manner = {}): ParagraphChild[] {
  return node.children.flatMap((child): ParagraphChild[] => {
    if (child.type === 'text') return [new TextRun({ text: printable(child.value).replace(/\n/g, ' '), ...manner })];
    if (child.type !== 'element') return [];
    const { tagName, properties } = child;
    if (tagName === 'br') return [new TextRun({ break: 1 })];
    if (tagName === 'a' && typeof properties.href === 'string' && /^https?:/i.test(properties.href))
      return [linkRun(toString(child), properties.href)];
    const more: Manner = {
      ...manner,
      ...(tagName === 'strong' ? { bold: true } : {}),
      ...(tagName === 'em' ? { italics: true } : {}),
      ...(tagName === 'del' ? { strike: true } : {}),
      ...(tagName === 'code' ? { font: 'Courier New' } : {}),
    };
    return runs(child, more);
  });
}

const NUMBERED = {
  reference: 'numbered',
  levels: [0, 1, 2].map((level) => ({
    level,
    format: LevelFormat.DECIMAL,
    text: `%${level + 1}.`,
    alignment: AlignmentType.START,
    style: { paragraph: { indent: { left: 720 * (level + 1), hanging: 360 } } },
  })),
};

const STYLES = {
  default: {
    document: {
      run: { font: 'Georgia', size: 22 },
      paragraph: { spacing: { after: 140, line: 300, lineRule: LineRuleType.AUTO } },
    },
    title: { run: { font: 'Georgia', size: 52 }, paragraph: { spacing: { after: 200 } } },
    heading1: { run: { font: 'Georgia', size: 34, bold: true }, paragraph: { spacing: { before: 400, after: 120 } } },
    heading2: { run: { font: 'Georgia', size: 28, bold: true }, paragraph: { spacing: { before: 300, after: 100 } } },
    heading3: { run: { font: 'Georgia', size: 24, bold: true } },
    hyperlink: { run: { color: '6E2F6B', underline: {} } },
  },
  characterStyles: [
    { id: 'Strong', name: 'Strong', basedOn: 'DefaultParagraphFont', run: { bold: true } },
    { id: 'StrongLink', name: 'Strong Link', basedOn: 'Hyperlink', run: { bold: true } },
  ],
  paragraphStyles: [
    {
      ...{ id: 'Quotation', name: 'Quotation', basedOn: 'Normal', next: 'Normal', quickFormat: true },
      run: { italics: true },
      paragraph: {
        indent: { left: 480 },
        border: { left: { style: BorderStyle.SINGLE, size: 12, color: '6E2F6B', space: 12 } },
      },
    },
    {
      ...{ id: 'Caption', name: 'Caption', basedOn: 'Normal', next: 'Normal', quickFormat: true },
      run: { size: 19, color: '5E5268' },
    },
    {
      ...{ id: 'Purpose', name: 'Purpose', basedOn: 'Normal', next: 'Normal', quickFormat: true },
      run: { size: 19, bold: true, color: '5E5268' },
      paragraph: { spacing: { before: 160, after: 40 } },
    },
  ],
};
