import type { Paragraph, PhrasingContent, RootContent, TableCell } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { CompiledPart } from '../dossier';
import type { Item } from '../model';
import { PURPOSE_WORDS, sourceOf, titleOf } from '../wording';
import {
  asGrid,
  type Grid,
  type HandedOn,
  type Head,
  oneLine,
  shownParts,
  sourceLine,
  webAddress,
} from './dossier-handed-on';

const words = (value: string): PhrasingContent => ({ type: 'text', value: oneLine(value) });
const paragraph = (...children: PhrasingContent[]): Paragraph => ({ type: 'paragraph', children });
const linked = (item: Item, value: string): PhrasingContent => {
  const url = webAddress(item);
  return url === null ? words(value) : { type: 'link', url, children: [words(value)] };
};
/** They are Markdown already. */
const own = (markdown: string): RootContent[] => fromMarkdown(markdown).children;

/** A dossier as Markdown (CommonMark 0.31, tables as GFM has them), with what it is in front as YAML 1.2. */
export function dossierMarkdown({ compiled, owner, updatedAt, table }: HandedOn): string {
  const facts = table && asGrid(table);
  const children: RootContent[] = [
    { type: 'heading', depth: 1, children: [words(compiled.title)] },
    ...own(compiled.introduction),
    ...shownParts(compiled).flatMap(partNodes),
    ...(facts ? [tableNode(facts)] : []),
    ...own(compiled.closing),
  ];
  const front = [
    `title: ${JSON.stringify(oneLine(compiled.title))}`,
    ...(owner === null ? [] : [`author: ${JSON.stringify(oneLine(owner))}`]),
    `date: ${new Date(updatedAt).toISOString().slice(0, 10)}`,
  ];
  return `---\n${front.join('\n')}\n---\n\n${toMarkdown({ type: 'root', children }, { extensions: [gfmToMarkdown()] })}`;
}

function partNodes(part: CompiledPart): RootContent[] {
  switch (part.kind) {
    case 'heading':
      return [{ type: 'heading', depth: part.depth === 1 ? 2 : 3, children: [words(part.text)] }];
    case 'item':
      return itemNodes(part.item);
    case 'passage':
      return [
        { type: 'blockquote', children: part.words.split('\n\n').map((each) => paragraph(words(each))) },
        paragraph(linked(part.of, sourceLine(part.of))),
      ];
    case 'picture':
      return [
        paragraph(
          words(part.caption === '' ? 'A picture, ' : `${part.caption}, `),
          linked(part.of, sourceLine(part.of)),
        ),
      ];
    case 'note':
      return [paragraph({ type: 'strong', children: [words(PURPOSE_WORDS[part.purpose])] }), ...own(part.markdown)];
    case 'search':
      return part.items.flatMap(itemNodes);
    case 'gone':
      return [];
  }
}

const itemNodes = (item: Item): RootContent[] => [
  paragraph({ type: 'strong', children: [linked(item, titleOf(item))] }, { type: 'break' }, words(sourceOf(item))),
];

function tableNode({ columns, rows }: Grid): RootContent {
  const cell = (...children: PhrasingContent[]): TableCell => ({ type: 'tableCell', children });
  const headOf = (head: Head) => cell(typeof head === 'string' ? words(head) : linked(head, titleOf(head)));
  return {
    type: 'table',
    children: [
      { type: 'tableRow', children: [cell(), ...columns.map(headOf)] },
      ...rows.map(({ head, cells }) => ({
        type: 'tableRow' as const,
        children: [headOf(head), ...cells.map((each) => cell(words(each ?? '')))],
      })),
    ],
  };
}
