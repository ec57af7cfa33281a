import { readTableRows } from '../formats';
import { TagName } from '../model';
import { isoDate } from '../text';
import { type Findings, type Found, UNSAID } from './found';

/** What a column of a table can be; the first is what each row must have. */
export const TABLE_FIELDS = ['address', 'title', 'tags', 'saved', 'read', 'note'] as const;
export type TableField = (typeof TABLE_FIELDS)[number];
/** For each thing that a row may say the place of its column, from 0; null for none. */
export type TableColumns = Readonly<Record<TableField, number | null>>;

export interface AddressTable {
  /** What the columns are called; without a head their places: `Column 1`. */
  head: string[];
  rows: string[][];
}

/** What columns are often called. Common practice. */
const NAMES: Readonly<Record<TableField, RegExp>> = {
  address: /^(?:address|url|uri|link|href|web ?page|adresse|lien|enlace)$/i,
  title: /^(?:title|name|headline|titel|titre|título|titolo)$/i,
  tags: /^(?:tags?|labels?|folders?|collections?|categor(?:y|ies)|keywords?|schlagw(?:o|ö)rte?r?)$/i,
  saved:
    /^(?:(?:date|time)[ _]?)?(?:saved|added|created|bookmarked|time_added|date|time|datum|timestamp)(?:[ _]?(?:at|on|date|time))?$/i,
  read: /^(?:read|is ?read|status|state|archived?|finished|unread|done|gelesen)$/i,
  note: /^(?:notes?|comments?|description|annotation|excerpt|notiz)$/i,
};
const isAddress = (cell: string): boolean => /^https?:\/\/\S+$/i.test(cell.trim());

/**
 * A table of pages (CSV, RFC 4180; parted by commas, semicolons or tabs).
 *
 * @returns null for what is none: one column, or no addresses
 */
export function addressTableIn(written: string): AddressTable | null {
  const all = readTableRows(written.replace(/^\ufeff/, ''), [',', '\t', ';']);
  const width = all.reduce((most, row) => Math.max(most, row.length), 0);
  const [first = []] = all;
  const hasHead = first.length > 0 && !first.some(isAddress);
  const rows = hasHead ? all.slice(1) : all;
  if (width < 2 || !rows.some((row) => row.some(isAddress))) return null;
  const head = Array.from({ length: width }, (_, n) =>
    hasHead && first[n]?.trim() ? first[n].trim() : `Column ${n + 1}`,
  );
  return { head, rows };
}

/** What the columns most likely are: by what they are called, the addresses by what stands in them. */
export function likelyColumns({ head, rows }: AddressTable): TableColumns {
  const taken = new Set<number>();
  const named = (field: TableField): number | null => {
    const place = head.findIndex((name, n) => !taken.has(n) && NAMES[field].test(name.trim()));
    if (place === -1) return null;
    taken.add(place);
    return place;
  };
  const share = (n: number) => rows.filter((row) => isAddress(row[n] ?? '')).length;
  const best = head.map((_, n) => n).sort((a, b) => share(b) - share(a))[0] ?? 0;
  const byName = named('address');
  const address = byName !== null && share(byName) * 2 > rows.length ? byName : best;
  if (address !== byName && byName !== null) taken.delete(byName);
  taken.add(address);
  return {
    address,
    title: named('title'),
    tags: named('tags'),
    saved: named('saved'),
    read: named('read'),
    note: named('note'),
  };
}

/** The pages of a table, by what its columns were said to be. A row without an address is told of. */
export function foundInTable({ head, rows }: AddressTable, columns: TableColumns): Findings {
  const cell = (row: readonly string[], field: TableField): string => {
    const place = columns[field];
    return place === null ? '' : (row[place]?.trim() ?? '');
  };
  const isUnread = columns.read !== null && /unread|ungelesen/i.test(head[columns.read] ?? '');
  const dayFirst = isDayFirst(rows.map((row) => cell(row, 'saved')));
  const faults: Findings['faults'] = [];
  const found = rows.flatMap((row, n): Found[] => {
    const address = cell(row, 'address');
    if (address === '') {
      faults.push({ written: `Row ${n + 2}`, says: 'There is no address in it.' });
      return [];
    }
    const said = cell(row, 'read');
    return [
      {
        ...UNSAID,
        address,
        title: cell(row, 'title') || null,
        note: cell(row, 'note') || null,
        savedAt: instantIn(cell(row, 'saved'), dayFirst),
        isRead: said === '' ? null : YES.test(said) !== isUnread,
        tags: cell(row, 'tags')
          .split(/[,;|]/)
          .flatMap((tag) => TagName.safeParse(tag).data ?? []),
      },
    ];
  });
  return { found, faults };
}

/** Words by which other lists say that something was read. */
const YES = /^(?:yes|true|1|x|✓|read|done|finished|archived?|ja|oui|sí|gelesen|erledigt)$/i;

/**
 * A day or an instant as tables have them: ISO 8601, seconds or milliseconds since 1970, `31/12/2026`, or in words.
 *
 * @param dayFirst how to read two numbers that could both be months
 * @returns milliseconds since 1970; null for what is none
 */
function instantIn(written: string, dayFirst: boolean): number | null {
  if (/^\d{9,11}$/.test(written)) return Number(written) * 1000;
  if (/^\d{12,14}$/.test(written)) return Number(written);
  const parts = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})(?:[ ,T]+(\d{1,2}:\d{2}(?::\d{2})?))?/.exec(written);
  if (parts) {
    const [, a = '', b = '', year = '', time = '00:00'] = parts;
    const [day, month] = (dayFirst ? [a, b] : [b, a]).map((part) => part.padStart(2, '0'));
    const at = Date.parse(`${year}-${month}-${day}T${time.padStart(5, '0')}Z`);
    return Number.isNaN(at) ? null : at;
  }
  const iso = isoDate(written);
  const at = iso === null ? NaN : Date.parse(iso);
  return Number.isNaN(at) || at <= 0 ? null : at;
}

/** Whether a column of days has the day before the month: where any of them shows it, as it shows; else so, as in most of the world. */
function isDayFirst(column: readonly string[]): boolean {
  const parts = column.flatMap((written) => {
    const read = /^(\d{1,2})[./-](\d{1,2})[./-]\d{4}/.exec(written);
    return read ? [[Number(read[1]), Number(read[2])] as const] : [];
  });
  return parts.some(([a]) => a > 12) || !parts.some(([, b]) => b > 12);
}
