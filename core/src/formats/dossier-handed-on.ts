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

/** The items of what is shown. */
export const shownItems = (compiled: CompiledDossier): Item[] => itemsIn({ parts: shownParts(compiled) });
