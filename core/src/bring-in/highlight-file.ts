import { z } from 'zod';
import { HIGHLIGHT_COLUMNS as COLUMNS, readTableRows } from '../formats';
import { HighlightKind, MAX_NOTE_LENGTH } from '../model';
import { type ForeignHighlight, type HighlightFile, MAX_QUOTATION_LENGTH, NOTHING_SAID } from './foreign-highlight';
import { readQuotations } from './quotations';

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
      ...NOTHING_SAID,
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
      ...NOTHING_SAID,
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

const kindOf = (written: string | undefined): HighlightKind => {
  const read = HighlightKind.safeParse(written?.toLowerCase().replace(' ', '-'));
  return read.success ? read.data : 'key';
};

function instantOf(written: string | undefined): number | null {
  const instant = Date.parse(written ?? '');
  return Number.isNaN(instant) || instant < 0 ? null : instant;
}
