import type { Root } from 'hast';
import { toString } from 'hast-util-to-string';
import { visit } from 'unist-util-visit';
import { type CameThrough, MAX_DOUBTS } from '../../model';
import { type Article, measured } from '../article';
import { SHORTER_BY } from './came-through';

/** A block shorter than this may well stand on two pages of an article. */
const MIN_REPEATED = 25;

/**
 * Joins an article that is cut into several pages: the first page's word for what it is, all pages' text. What a page
 * repeats of those before it (the standfirst, a note to the reader) is left out.
 *
 * @param further the pages behind the first, in order
 */
export function joinPages(first: Article, further: readonly Article[]): Article {
  const tree: Root = { type: 'root', children: [...first.tree.children] };
  const doubts = [...first.doubts];
  const said = new Set(first.tree.children.map(mark));
  further.forEach((page, index) => {
    const own = structuredCopy(page.tree);
    renumber(own, index + 2);
    for (const [at, block] of own.children.entries()) {
      if (said.has(mark(block)) && mark(block).length >= MIN_REPEATED) continue;
      said.add(mark(block));
      const doubt = page.doubts.find((each) => each.at === at);
      if (doubt) doubts.push({ ...doubt, at: tree.children.length });
      tree.children.push(block);
    }
  });
  const measures = measured(tree, first.language);
  return {
    ...first,
    ...measures,
    doubts: doubts.slice(0, MAX_DOUBTS),
    nextPageUrl: further.at(-1)?.nextPageUrl ?? null,
    cameThrough: withoutShortness(first, measures.wordCount),
  };
}

/** What seemed short of what the first page states may be whole with the others. */
function withoutShortness({ cameThrough, statedWordCount }: Article, wordCount: number): CameThrough {
  if (wordCount < SHORTER_BY * (statedWordCount ?? 0)) return cameThrough;
  const signs = cameThrough.signs.filter(({ code }) => code !== 'shorter-than-stated');
  if (signs.length === cameThrough.signs.length) return cameThrough;
  return { verdict: signs.length > 0 ? cameThrough.verdict : 'whole', signs };
}

function mark(block: Root['children'][number]): string {
  if (block.type !== 'element') return '';
  const text = toString(block).trim();
  return text === '' ? pictureIn(block) : `${block.tagName} ${text}`;
}

function pictureIn(block: Root['children'][number]): string {
  let found = '';
  if (block.type === 'element')
    visit({ type: 'root', children: [block] } as Root, 'element', (element) => {
      if (element.tagName === 'img') found += element.properties.src?.toString() ?? '';
    });
  return found;
}

/** Footnotes of two pages are numbered alike: the page's number goes into their ids. */
function renumber(tree: Root, page: number): void {
  visit(tree, 'element', ({ properties }) => {
    if (typeof properties.id === 'string') properties.id = properties.id.replace(/^in-/, `in-p${page}-`);
    if (typeof properties.href === 'string') properties.href = properties.href.replace(/^#in-/, `#in-p${page}-`);
  });
}

function structuredCopy(tree: Root): Root {
  return JSON.parse(JSON.stringify(tree)) as Root;
}
