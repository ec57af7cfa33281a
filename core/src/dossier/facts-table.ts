import { type Dossier, type DossierEntry, type Fact, type FactValue, type Item } from '../model';
import { FACT_ORDER, factName, titleOf } from '../wording';
import type { CompiledDossier } from './compile';

/** Where a cell is from: how the page states it, what is known of any page, or the reader. */
export type CellSource = Fact['source'] | 'page' | 'reader';

/** What a facts table says of an item in a column. Nothing is made up: what no page states is no cell. */
export interface FactCell {
  value: FactValue;
  source: CellSource;
  /** The thing that the page says it of, where that is not the page itself. */
  of: string | null;
  /** What the page states, where the reader put it right. */
  stated: FactValue | null;
}

export interface FactRow {
  entryId: string;
  item: Item;
  cells: ReadonlyMap<string, FactCell>;
}

export interface FactsTable {
  columns: { key: string; title: string; hidden: boolean; isOwn: boolean }[];
  rows: FactRow[];
}

/** True for a column of the reader's own. */
const isOwn = (key: string): boolean => key.startsWith('own-');
/** The key of a column of the reader's own. */
export const ownColumn = (id: string): string => `own-${id}`;
/** What is known of any page, by the keys that its columns have. */
const OF_THE_PAGE = ['page.site', 'page.authors', 'page.published', 'page.minutes'];

/** The facts of the items in a dossier, side by side. A row for each item that was put in by itself, in their order. */
export function factsTable(
  dossier: Dossier,
  { parts }: Pick<CompiledDossier, 'parts'>,
  entries: readonly DossierEntry[],
): FactsTable {
  const written = new Map(entries.map(({ id, cells }) => [id, cells]));
  const rows = parts.flatMap((part): FactRow[] => {
    if (part.kind !== 'item') return [];
    const cells = statedBy(part.item);
    for (const [key, { value }] of Object.entries(written.get(part.entryId) ?? {}))
      if (value !== null)
        cells.set(key, {
          value: writtenValue(value, cells.get(key)?.value),
          source: 'reader',
          of: null,
          stated: cells.get(key)?.value ?? null,
        });
    return [{ entryId: part.entryId, item: part.item, cells }];
  });
  const own = Object.keys(dossier.columns).filter(isOwn);
  const said = new Set(rows.flatMap(({ cells }) => [...cells.keys()]).filter((key) => !isOwn(key)));
  const stated = [...said].sort((a, b) => rankOf(a) - rankOf(b));
  const haveFacts = stated.some((key) => !OF_THE_PAGE.includes(key));
  const columns = [...stated, ...own].map((key) => {
    const decided = dossier.columns[key]?.value;
    return {
      key,
      title: decided?.title ?? factName(key),
      // Where pages state facts of what they are about, what is known of any page only takes room.
      hidden: decided?.hidden ?? (OF_THE_PAGE.includes(key) && haveFacts),
      isOwn: isOwn(key),
    };
  });
  return { columns, rows };
}

/** Where a column stands: what the words have an order for before what pages call it themselves. */
function rankOf(key: string): number {
  const at = FACT_ORDER.indexOf(key);
  return at === -1 ? FACT_ORDER.length : at;
}

/** What a page states of what it is about, by key. */
function statedBy(item: Item): Map<string, FactCell> {
  const { page } = item.capture;
  const cells = new Map<string, FactCell>();
  if (!page) return cells;
  const add = (key: string, value: FactValue | null) => {
    if (value) cells.set(key, { value, source: 'page', of: null, stated: null });
  };
  const text = (words: string | null): FactValue | null => (words ? { type: 'text', text: words.slice(0, 400) } : null);
  const about = mainThing(
    page.facts.filter(({ about: subject }) => subject !== 'page'),
    titleOf(item),
  );
  for (const { key, value, source, of } of page.facts)
    if ((of === about || source === 'text' || source === 'meta') && !cells.has(key))
      cells.set(key, { value, source, of, stated: null });
  add('page.site', text(page.siteName));
  add('page.authors', text(page.authors.join('; ')));
  add('page.published', page.publishedAt ? { type: 'date', date: page.publishedAt } : null);
  add('page.minutes', { type: 'number', number: Math.max(1, Math.round(page.minutes)), outOf: null });
  return cells;
}

/** Of the things that a page states something of, the one that it is about: whose name its title has most of; else the first. */
function mainThing(facts: readonly Fact[], title: string): string | null {
  const inTitle = new Set(wordsOf(title));
  const share = (name: string | null) => {
    const own = wordsOf(name ?? '');
    return own.length === 0 ? 0 : own.filter((word) => inTitle.has(word)).length / own.length;
  };
  return facts.reduce<{ of: string | null; share: number }>(
    (best, { of }) => (share(of) > best.share ? { of, share: share(of) } : best),
    { of: facts[0]?.of ?? null, share: 0 },
  ).of;
}

const wordsOf = (words: string): string[] => words.toLocaleLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/**
 * What a reader wrote in a cell. A number stays one, so that the column can be put in order: of the sort that the page
 * states there, with its currency, where nothing else is said.
 */
export function writtenValue(written: string, stated: FactValue | undefined): FactValue {
  const text: FactValue = { type: 'text', text: written };
  const money = /^(?:([A-Z]{3})\s*)?(-?\d+(?:\.\d+)?)(?:\s*([A-Z]{3}))?$/.exec(written.trim());
  if (/^\d{4}-\d{2}-\d{2}$/.test(written)) return { type: 'date', date: written };
  if (!money) return text;
  const amount = Number(money[2]);
  const currency = money[1] ?? money[3] ?? null;
  if (stated?.type === 'money' || currency)
    return { type: 'money', amount, currency: currency ?? (stated?.type === 'money' ? stated.currency : null) };
  return { type: 'number', number: amount, outOf: stated?.type === 'number' ? stated.outOf : null };
}

/** By what two values of a column come one before the other: numbers by size (money within its currency), the rest by words. */
export function compareValues(a: FactValue, b: FactValue): number {
  const [x, y] = [sortKey(a), sortKey(b)];
  if (x.group !== y.group) return x.group < y.group ? -1 : 1;
  return typeof x.key === 'number' && typeof y.key === 'number'
    ? x.key - y.key
    : String(x.key).localeCompare(String(y.key), 'en', { numeric: true });
}

function sortKey(value: FactValue): { group: string; key: number | string } {
  switch (value.type) {
    case 'money':
      // One currency is not worth more than another here: no rates are known, so each stands by itself.
      return { group: `1 ${value.currency ?? ''}`, key: value.amount };
    case 'number':
      return { group: '0', key: value.outOf === null ? value.number : value.number / value.outOf };
    case 'duration':
      return { group: '0', key: value.seconds };
    case 'date':
      return { group: '2', key: value.date };
    case 'text':
      return { group: '3', key: value.text };
  }
}
