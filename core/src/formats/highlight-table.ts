import { z } from 'zod';
import { HighlightKind, MAX_NOTE_LENGTH } from '../model';
import { notesUnder, noteText } from '../notes';
import { titleOf } from '../wording';
import type { HighlightedItem } from './highlights';
import { readTableRows, writeTable } from './table';

const COLUMNS = ['quotation', 'kind', 'note', 'title', 'address', 'date'] as const;

/**
 * Highlights as CSV (RFC 4180), one a row, each with its source and what was written on it. What was written on an item alone
 * is a row without a quotation.
 */
export function highlightsAsCsv(marked: readonly HighlightedItem[]): string {
  const data = marked.flatMap((each) => {
    const row = (quotation: string, kind: string, notes: readonly string[], madeAt: number) => [
      quotation,
      kind,
      notes.filter(Boolean).join('\n\n'),
      titleOf(each.item),
      each.item.address,
      new Date(madeAt).toISOString(),
    ];
    const onItem = notesUnder(each, null);
    return [
      ...each.highlights.map(({ id, madeAt, choices }) =>
        row(choices.passage.value.exact, choices.kind.value, notesUnder(each, id).map(noteText), madeAt),
      ),
      ...(onItem[0] ? [row('', '', onItem.map(noteText), onItem[0].madeAt)] : []),
    ];
  });
  return writeTable(COLUMNS, data);
}

/** A highlight that was made elsewhere, as far as a file tells of it. */
export interface ForeignHighlight {
  quotation: string;
  kind: HighlightKind;
  note: string;
  /** What its source is called, and where it stands; empty when it is not said. */
  title: string;
  address: string;
  /** Instant, or null. */
  madeAt: number | null;
  prefix: string;
  suffix: string;
}

/** What was found in a file of highlights. */
export interface HighlightFile {
  highlights: ForeignHighlight[];
  /** What could not be read, in words. */
  faults: string[];
}

const MAX_QUOTATION_LENGTH = 20_000;
const blank = {
  kind: 'key',
  note: '',
  title: '',
  address: '',
  madeAt: null,
  prefix: '',
  suffix: '',
} as const;

/** Highlights from W3C web annotations, from a table, or from plain text: whichever the file is. */
export function readHighlightFile(written: string): HighlightFile {
  const text = written.replace(/^\ufeff/, '').trim();
  if (text === '') return { highlights: [], faults: ['The file is empty.'] };
  const read = /^[[{]/.test(text) ? readAnnotations(text) : (readTable(text) ?? readQuotations(text));
  if (read.highlights.length === 0 && read.faults.length === 0) read.faults.push('There is no quotation in it.');
  return read;
}

const TextualBody = z.object({ value: z.string(), purpose: z.string().optional() });
const Selector = z.object({
  type: z.string().optional(),
  exact: z.string().optional(),
  prefix: z.string().optional(),
  suffix: z.string().optional(),
});
const oneOrMany = <Part extends z.ZodType>(part: Part) =>
  z.union([z.array(z.unknown()), z.unknown()]).transform((value) =>
    (Array.isArray(value) ? value : [value]).flatMap((each): z.output<Part>[] => {
      const read = part.safeParse(each);
      return read.success ? [read.data] : [];
    }),
  );
const Source = z.union([z.string(), z.object({ id: z.string() }).transform(({ id }) => id)]);
const Annotation = z.object({
  created: z.string().optional(),
  body: oneOrMany(z.union([TextualBody, z.string().transform((value) => ({ value, purpose: undefined }))])),
  target: oneOrMany(
    z.object({ source: Source.optional(), title: z.string().optional(), selector: oneOrMany(Selector) }),
  ),
});

/** Web Annotation Data Model (W3C, 2017): one annotation, a list of them, or a page or collection of them. */
function readAnnotations(written: string): HighlightFile {
  let value: unknown;
  try {
    value = JSON.parse(written);
  } catch {
    return { highlights: [], faults: ['It begins as JSON does but cannot be read as JSON.'] };
  }
  const highlights: ForeignHighlight[] = [];
  const faults: string[] = [];
  annotationsIn(value).forEach((each, at) => {
    const read = Annotation.safeParse(each);
    const target = read.success ? read.data.target[0] : undefined;
    const quote = target?.selector.find(({ exact }) => exact?.trim());
    if (!read.success || !target || !quote?.exact) {
      faults.push(`Annotation ${at + 1} quotes nothing.`);
      return;
    }
    const { body, created } = read.data;
    const kind = body.find(({ purpose }) => purpose === 'tagging')?.value;
    const notes = body.filter(({ purpose }) => purpose !== 'tagging').map((part) => part.value);
    highlights.push({
      ...blank,
      quotation: quote.exact.slice(0, MAX_QUOTATION_LENGTH),
      prefix: quote.prefix ?? '',
      suffix: quote.suffix ?? '',
      kind: kindOf(kind),
      note: notes.join('\n\n').slice(0, MAX_NOTE_LENGTH),
      title: target.title ?? '',
      address: target.source ?? '',
      madeAt: instantOf(created),
    });
  });
  return { highlights, faults };
}

function annotationsIn(value: unknown): unknown[] {
  if (Array.isArray(value)) return value;
  const page = z.object({ items: z.array(z.unknown()) }).safeParse(value);
  if (page.success) return page.data.items;
  const collection = z.object({ first: z.unknown() }).safeParse(value);
  return collection.success && collection.data.first ? annotationsIn(collection.data.first) : [value];
}

/** What columns may be called, besides their own names. */
const NAMES: Readonly<Record<(typeof COLUMNS)[number], RegExp>> = {
  quotation: /^(?:quotation|quote|highlight|text|passage)$/i,
  kind: /^(?:kind|colou?r|tag)s?$/i,
  note: /^(?:note|comment|annotation)s?$/i,
  title: /^(?:title|book|article|source)$/i,
  address: /^(?:address|url|link)$/i,
  date: /^(?:date|created|time|added)(?: at)?$/i,
};

/** A table with a head that names a column of quotations; null for anything else. */
function readTable(written: string): HighlightFile | null {
  const data = readTableRows(written, [',', '\t', ';']);
  const head = data[0]?.map((cell) => cell.trim()) ?? [];
  const column = Object.fromEntries(
    COLUMNS.map((name) => [name, head.findIndex((cell) => NAMES[name].test(cell))]),
  ) as Record<(typeof COLUMNS)[number], number>;
  if (head.length < 2 || column.quotation === -1) return null;
  const found: HighlightFile = { highlights: [], faults: [] };
  data.slice(1).forEach((row, at) => {
    const cell = (name: (typeof COLUMNS)[number]) => row[column[name]]?.trim() ?? '';
    if (cell('quotation') === '') {
      found.faults.push(
        cell('note') === '' ? `Row ${at + 2} quotes nothing.` : `Row ${at + 2} is a note that quotes nothing.`,
      );
      return;
    }
    found.highlights.push({
      ...blank,
      quotation: cell('quotation').slice(0, MAX_QUOTATION_LENGTH),
      kind: kindOf(cell('kind')),
      note: cell('note').slice(0, MAX_NOTE_LENGTH),
      title: cell('title'),
      address: cell('address'),
      madeAt: instantOf(cell('date')),
    });
  });
  return found;
}

/**
 * Plain text: a blank line between two quotations. The last lines of each may say where it stands and when it was taken, in
 * any order: an address, a date, or a dash with a title.
 */
function readQuotations(written: string): HighlightFile {
  const highlights = written.split(/\r?\n\s*\r?\n/).flatMap((block): ForeignHighlight[] => {
    const lines = block.split(/\r?\n/).map((line) => line.trim());
    const found = { ...blank, title: '', address: '', madeAt: null as number | null };
    while (lines.length > 1) {
      const last = lines.at(-1) ?? '';
      const title = /^[—–-]{1,2}\s*(.+)$/.exec(last)?.[1];
      if (/^https?:\/\/\S+$/i.test(last)) found.address = last;
      else if (/^\d{4}-\d{2}-\d{2}/.test(last) && instantOf(last) !== null) found.madeAt = instantOf(last);
      else if (title) found.title = title;
      else break;
      lines.pop();
    }
    const quotation = lines
      .join('\n')
      .replace(/^>\s?/gm, '')
      .replace(/^[“"„«](.*)[”"“»]$/su, '$1')
      .trim();
    return quotation === '' ? [] : [{ ...found, quotation: quotation.slice(0, MAX_QUOTATION_LENGTH) }];
  });
  return { highlights, faults: [] };
}

const kindOf = (written: string | undefined): HighlightKind => {
  const read = HighlightKind.safeParse(written?.toLowerCase().replace(' ', '-'));
  return read.success ? read.data : 'key';
};

function instantOf(written: string | undefined): number | null {
  const instant = Date.parse(written ?? '');
  return Number.isNaN(instant) || instant < 0 ? null : instant;
}
