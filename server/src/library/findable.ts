import { Copy, type Item } from '@dorvel/core/model';
import { isLive } from '@dorvel/core/notes';
import { noteKind } from '@dorvel/core/records';
import {
  factsOf,
  FIELD_WEIGHTS,
  FIELDS,
  findableKey,
  isSameText,
  type ItemFacts,
  itemTerms,
  notesByItem,
  type Phrase,
  readText,
  SCOPE_FIELDS,
  type TermQuery,
  type TermSource,
} from '@dorvel/core/search';
import { and, asc, eq, gt, isNull, type SQL, sql } from 'drizzle-orm';
import type { Database, Transaction } from '../db/open';
import { copies, findables, items, records } from '../db/schema';
import { eachItemChanged } from './changed-items';
import { recordsIn } from './records';
import { readRecord, readStored, readStoredItem } from './stored';

/**
 * An account's items by their words, in SQLite's FTS5. Words are made by core/search, the same as on a device, so that
 * FTS5 only has to part them at spaces (its tokenizer "ascii" does no more with what is not ASCII). A table for each
 * account, for how rare a word is counts in its own library only. FTS5 keeps the words besides
 * indexing them: without, it could not take the length of a row that goes off the mean.
 */
const tableOf = (accountId: string) => sql.raw(`find_${accountId.replaceAll('-', '')}`);

async function makeTable(tx: Transaction, accountId: string): Promise<void> {
  const table = tableOf(accountId);
  await tx.run(
    sql`create virtual table if not exists ${table} using fts5(${sql.raw(FIELDS.join(', '))}, tokenize = 'ascii')`,
  );
}

/** The words of a copy, which are made before it is stored. */
export interface FreshTerms {
  copyId: string;
  terms: string;
}

/**
 * Makes an item findable by its words as they are now; nothing is done when they have not changed, and the words of its
 * text are made again only when the text is another.
 *
 * @param fresh the words of the copy that was stored a moment ago, if one was: they are made where strangers' texts are
 */
export async function putFindable(tx: Transaction, accountId: string, item: Item, fresh?: FreshTerms): Promise<void> {
  const mine = and(eq(findables.accountId, accountId), eq(findables.itemId, item.id));
  const [known] = await tx.select({ row: findables.row, key: findables.key }).from(findables).where(mine);
  const isOne = item.capture.duplicateOf === null;
  const copyId = item.capture.page?.copyId ?? null;
  const notes = notesByItem(await recordsIn(tx, accountId, noteKind, item.id)).get(item.id) ?? [];
  const key = findableKey(item, copyId, notes);
  if (isOne ? known?.key === key : !known) return;
  const table = tableOf(accountId);
  const before =
    known && isOne && isSameText(known.key, key)
      ? await tx.get<{ body: string }>(sql`select body from ${table} where rowid = ${known.row}`)
      : undefined;
  if (!isOne) return dropFindable(tx, accountId, item.id);
  if (known) await tx.run(sql`delete from ${table} where rowid = ${known.row}`);
  const body = before?.body ?? (fresh?.copyId === copyId ? fresh.terms : undefined);
  const fields = itemTerms(item, body === undefined ? await copyOf(tx, accountId, copyId) : null, notes, body);
  const [placed] = await tx
    .insert(findables)
    .values({ accountId, itemId: item.id, key })
    .onConflictDoUpdate({ target: [findables.accountId, findables.itemId], set: { key } })
    .returning({ row: findables.row });
  if (!placed) throw new Error('an item was not made findable');
  await makeTable(tx, accountId);
  const values = sql.join(
    FIELDS.map((field) => sql`${fields[field]}`),
    sql`, `,
  );
  await tx.run(sql`insert into ${table} (rowid, ${sql.raw(FIELDS.join(', '))}) values (${placed.row}, ${values})`);
}

/** Has an item not be found any more. */
export async function dropFindable(tx: Transaction, accountId: string, itemId: string): Promise<void> {
  const [known] = await tx
    .delete(findables)
    .where(and(eq(findables.accountId, accountId), eq(findables.itemId, itemId)))
    .returning({ row: findables.row });
  if (known) await tx.run(sql`delete from ${tableOf(accountId)} where rowid = ${known.row}`);
}

/** Takes all of an account's words away. */
export async function dropFindables(tx: Transaction, accountId: string): Promise<void> {
  await tx.run(sql`drop table if exists ${tableOf(accountId)}`);
}

async function copyOf(
  from: Pick<Transaction, 'select'>,
  accountId: string,
  copyId: string | null,
): Promise<Copy | null> {
  if (copyId === null) return null;
  const [row] = await from
    .select({ record: copies.record })
    .from(copies)
    .where(and(eq(copies.accountId, accountId), eq(copies.id, copyId)));
  return row ? readStored(Copy, row.record) : null;
}

/** What there is to find in an account's library. Facts are kept in memory and brought up to date at each question. */
export interface FindableLibrary {
  source: TermSource;
  /** Facts of all items as they are now, by id. */
  facts(): Promise<ReadonlyMap<string, ItemFacts>>;
  /** The text of an item as it is read; null when it has none. */
  textOf(id: string): Promise<{ text: string; language: string | null } | null>;
}

export function findableLibrary(database: Database, accountId: string): FindableLibrary {
  const facts = new Map<string, ItemFacts>();
  /** The item of each note that says something. */
  const noted = new Map<string, string>();
  let [upTo, notedUpTo] = [0, 0];
  const table = tableOf(accountId);
  const weights = sql.raw(FIELDS.map((field) => FIELD_WEIGHTS[field]).join(', '));

  /** Reads from the full-text table; of an account that has saved nothing yet there is none. */
  async function rows<Row>(query: SQL): Promise<Row[]> {
    const [made] = await database.read.all(
      sql`select 1 from sqlite_schema where name = ${`find_${accountId.replaceAll('-', '')}`}`,
    );
    return made ? database.read.all<Row>(query) : [];
  }

  let hasTerms = false;
  /** By the order in which the index has its terms: going through all takes the better part of a second with ten thousand items. */
  async function termsWhere(condition: SQL): Promise<[string, number][]> {
    const name = sql.raw(`find_${accountId.replaceAll('-', '')}_terms`);
    // Once: asking for it waits behind whatever is being written.
    if (!hasTerms)
      await database.write(async (tx) => {
        await makeTable(tx, accountId);
        await tx.run(sql`create virtual table if not exists ${name} using fts5vocab(${table}, 'row')`);
      });
    hasTerms = true;
    const found = await rows<{ term: string; doc: number }>(sql`select term, doc from ${name} where ${condition}`);
    return found.map(({ term, doc }) => [term, doc]);
  }

  return {
    source: {
      async match(query) {
        if (query.parts.length === 0) return new Map();
        const found = await rows<{ id: string; score: number }>(
          sql`select f.item_id as id, -bm25(${table}, ${weights}) as score from ${table} join findables f on f.row = ${table}.rowid where ${table} match ${expressionOf(query)}`,
        );
        return new Map(found.map(({ id, score }) => [id, score]));
      },
      async knowsStart(start) {
        const found = await rows(
          sql`select 1 from ${table} where ${table} match ${phrase({ terms: [start], prefix: true })} limit 1`,
        );
        return found.length > 0;
      },
      termsBeginning: (start) => termsWhere(sql`term >= ${start} and term <= ${`${start}\u{10FFFF}`}`),
      termsAmong: (terms) =>
        terms.length === 0
          ? []
          : termsWhere(
              sql`term in (${sql.join(
                terms.map((term) => sql`${term}`),
                sql`, `,
              )})`,
            ),
    },
    async facts() {
      const notes = await database.read
        .select({ sequence: records.sequence, record: records.record })
        .from(records)
        .where(and(eq(records.accountId, accountId), eq(records.kind, noteKind.name), gt(records.sequence, notedUpTo)))
        .orderBy(asc(records.sequence));
      const touched = new Set<string>();
      for (const { sequence, record } of notes) {
        const note = readRecord(noteKind, record);
        notedUpTo = sequence;
        if (typeof note?.itemId !== 'string') continue;
        touched.add(note.itemId);
        if (isLive(note)) noted.set(note.id, note.itemId);
        else noted.delete(note.id);
      }
      const notedItems = new Set(noted.values());
      for (const itemId of touched) {
        const of = facts.get(itemId);
        if (of) facts.set(itemId, { ...of, noted: notedItems.has(itemId) });
      }
      upTo = await eachItemChanged(database, accountId, upTo, (item) => {
        const of = factsOf(item, notedItems.has(item.id));
        if (of) facts.set(item.id, of);
        else facts.delete(item.id);
      });
      return facts;
    },
    async textOf(id) {
      const [found] = await database.read
        .select({ record: items.record })
        .from(items)
        .where(and(eq(items.accountId, accountId), eq(items.id, id)));
      const item = found && readStoredItem(found.record);
      const copy = item && (await copyOf(database.read, accountId, item.capture.page?.copyId ?? null));
      return copy ? { text: readText(item, copy), language: copy.language } : null;
    },
  };
}

/** A query in FTS5's language: `{title source body} : (("a" OR "b c") AND ("d" *))`. */
function expressionOf({ parts, mode, scope }: TermQuery): string {
  const all = parts.map((part) => `(${part.map(phrase).join(' OR ')})`).join(mode === 'all' ? ' AND ' : ' OR ');
  return scope === 'all' ? all : `{${SCOPE_FIELDS[scope].join(' ')}} : (${all})`;
}

/** Terms are letters and digits, so that nothing in them has to be escaped. */
function phrase({ terms, prefix }: Phrase): string {
  return `"${terms.join(' ')}"${prefix ? ' *' : ''}`;
}

/** Makes findable what was saved before there was finding. @returns how many items it was */
export async function putMissingFindables(database: Database): Promise<number> {
  const missing = await database.read
    .select({ accountId: items.accountId, record: items.record })
    .from(items)
    .leftJoin(findables, and(eq(findables.accountId, items.accountId), eq(findables.itemId, items.id)))
    .where(and(isNull(findables.row), isNull(items.duplicateOf)));
  for (const { accountId, record } of missing) {
    const item = readStoredItem(record);
    if (item) await database.write((tx) => putFindable(tx, accountId, item));
  }
  return missing.length;
}
