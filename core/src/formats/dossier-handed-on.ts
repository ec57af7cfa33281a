import { type CompiledDossier, type CompiledPart, type FactsTable, itemsIn } from '../dossier';
import type { DossierAccent, DossierDesign, DossierTypeface, Item } from '../model';
import { sourceOf, titleOf, valueInWords } from '../wording';

/** A dossier on its way out of the library. */
export interface HandedOn {
  compiled: CompiledDossier;
  /** Null where it is not part of what is handed on. */
  table: FactsTable | null;
  /** Null where the owner is not named. */
  owner: string | null;
  design: DossierDesign;
  accent: DossierAccent;
  typeface: DossierTypeface;
  /** When anything in it was changed last: milliseconds since 1970. */
  updatedAt: number;
}

/** What of a dossier others are shown: all but what is not in the library any more. */
export const shownParts = ({ parts }: CompiledDossier): CompiledPart[] => parts.filter(({ kind }) => kind !== 'gone');

/** Where a page is, if it is on the web: a letter or a file is nowhere that others could go. */
export const webAddress = ({ address }: Item): string | null => (/^https?:\/\//i.test(address) ? address : null);

/** "What the eelgrass knows, Tidewater Quarterly" */
export function sourceLine(item: Item): string {
  return [titleOf(item), sourceOf(item)].filter((part, at, all) => all.indexOf(part) === at).join(', ');
}

/** A text in one line. Marks that turn the direction of what follows are taken out: in a line of ours they could only mislead. */
export const oneLine = (words: string): string =>
  words
    .replace(/[\u202A-\u202E\u2066-\u2069\u200E\u200F]/gu, '')
    .replace(/[\s\p{Cc}]+/gu, ' ')
    .trim();

/** The columns that a facts table shows, and its rows as words; null where nothing is stated. */
export function tableInWords({ columns, rows }: FactsTable) {
  const shown = columns.filter(({ hidden }) => !hidden);
  return {
    head: shown.map(({ title }) => oneLine(title)),
    rows: rows.map(({ item, cells }) => ({
      item,
      cells: shown.map(({ key }) => {
        const cell = cells.get(key);
        return cell ? oneLine(valueInWords(cell.value)) : null;
      }),
    })),
  };
}

/** What stands at the head of a row or a column: an item, or what is told of it. */
export type Head = Item | string;

export interface Grid {
  /** Without the one over the heads of the rows. */
  columns: Head[];
  rows: { head: Head; cells: (string | null)[] }[];
}

/** So many items fit side by side on a page. */
const ITEMS_ACROSS = 6;

/**
 * A facts table as it is read on paper: an item a row; where there are fewer items than facts, a fact a row, so that it is no
 * wider than it has to be. Null where nothing is stated.
 */
export function asGrid(table: FactsTable): Grid | null {
  const { head, rows } = tableInWords(table);
  if (head.length === 0 || rows.length === 0) return null;
  if (rows.length > ITEMS_ACROSS || rows.length >= head.length)
    return { columns: head, rows: rows.map(({ item, cells }) => ({ head: item, cells })) };
  return {
    columns: rows.map(({ item }) => item),
    rows: head.map((title, at) => ({ head: title, cells: rows.map(({ cells }) => cells[at] ?? null) })),
  };
}

/** The items of what is shown. */
export const shownItems = (compiled: CompiledDossier): Item[] => itemsIn({ parts: shownParts(compiled) });
