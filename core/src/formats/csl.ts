import type { Item } from '../model';
import { sourceOf, titleOf } from '../wording';
import { oneLine, webAddress } from './dossier-handed-on';

/** A reference as citation processors take it (CSL-JSON: citationstyles.org, csl-data.json 1.0.2). */
export interface CslItem {
  id: string;
  type: 'webpage';
  title: string;
  'container-title': string;
  author?: { literal: string }[];
  issued?: { 'date-parts': number[][] };
  accessed: { 'date-parts': number[][] };
  URL?: string;
  language?: string;
}

/** What a bibliography says of items. A name is kept as the page has it: which part of it is the family's, nobody stated. */
export function asCsl(items: readonly Item[]): CslItem[] {
  const taken = new Map<string, number>();
  return items.map((item) => {
    const { page } = item.capture;
    const label = labelOf(item);
    const before = taken.get(label) ?? 0;
    taken.set(label, before + 1);
    const published = page?.publishedAt ? datePart(page.publishedAt) : null;
    const url = webAddress(item);
    return {
      id: before === 0 ? label : `${label}-${before + 1}`,
      type: 'webpage',
      title: asWords(titleOf(item)),
      'container-title': asWords(sourceOf(item)),
      ...(page && page.authors.length > 0 ? { author: page.authors.map((name) => ({ literal: nameIn(name) })) } : {}),
      ...(published ? { issued: { 'date-parts': [published] } } : {}),
      accessed: { 'date-parts': [datePart(new Date(item.savedAt).toISOString()) ?? []] },
      ...(url === null ? {} : { URL: url }),
      ...(page?.language ? { language: page.language } : {}),
    };
  });
}

/** Titles may have markup there (CSL 1.0.2, appendix VI); those of pages are words, so that a tag in one is none any more. */
const asWords = (words: string): string => oneLine(words).replace(/<(?=\/?(?:i|b|sc|sup|sub|span)\b)/gi, '< ');

/** Without what means something in BibTeX: writers of it take a whole name for safe. */
const nameIn = (name: string): string => oneLine(name.replace(/[{}\\%$#^~]/g, ' ')) || 'unknown';

/** How a bibliography may call it: the last word of its first author, or the first of its title, and the year. */
function labelOf(item: Item): string {
  const { page } = item.capture;
  const author = page?.authors[0]?.split(/\s+/).at(-1);
  const word =
    asciiOf(author ?? '') ||
    asciiOf(
      titleOf(item)
        .split(/\s+/)
        .find((each) => each.length > 3) ?? '',
    ) ||
    'item';
  return `${word}${page?.publishedAt?.slice(0, 4) ?? ''}`;
}

const asciiOf = (word: string): string =>
  word
    .normalize('NFKD')
    .replace(/[^A-Za-z]/g, '')
    .toLowerCase()
    .slice(0, 24);

/** Year, month and day as far as they are stated. */
function datePart(stated: string): number[] | null {
  const found = /^(\d{4})(?:-(\d{2})(?:-(\d{2}))?)?/.exec(stated);
  return found ? found.slice(1).flatMap((part) => (part ? [Number(part)] : [])) : null;
}
