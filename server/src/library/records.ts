import type { Change, Kind, Stored } from '@dorvel/core/records';
import { and, asc, eq, gt } from 'drizzle-orm';
import type { Transaction } from '../db/open';
import { records } from '../db/schema';
import { readRecord, storable } from './stored';

/** A server of databases answers no more than 10 MB at once; a long note has some kilobytes. */
const PAGE = 1000;

/**
 * All records of a kind, removed ones too: those that belong to an item where one is named. Not of items and feeds, which
 * have tables of their own.
 */
export async function recordsIn<Record extends Stored, Made extends Change>(
  from: Pick<Transaction, 'select'>,
  accountId: string,
  kind: Kind<Record, Made>,
  itemId?: string,
): Promise<Record[]> {
  const wanted = and(
    eq(records.accountId, accountId),
    eq(records.kind, kind.name),
    itemId === undefined ? undefined : eq(records.itemId, itemId),
  );
  const found: Record[] = [];
  for (let last = ''; ;) {
    const rows = await from
      .select({ id: records.id, record: records.record })
      .from(records)
      .where(and(wanted, gt(records.id, last)))
      .orderBy(asc(records.id))
      .limit(PAGE);
    found.push(...rows.flatMap(({ record }) => readRecord(kind, record) ?? []));
    if (rows.length < PAGE) return found;
    last = rows.at(-1)?.id ?? last;
  }
}

/** The small records of one account, in a change of its library. */
export function recordWriter(tx: Transaction, accountId: string, sequence: number) {
  return {
    async record<Record extends Stored, Made extends Change>(
      kind: Kind<Record, Made>,
      id: string,
    ): Promise<Record | undefined> {
      const [row] = await tx
        .select({ record: records.record })
        .from(records)
        .where(and(eq(records.accountId, accountId), eq(records.kind, kind.name), eq(records.id, id)));
      return (row && readRecord(kind, row.record)) ?? undefined;
    },
    /** @throws Unstorable */
    async putRecord<Record extends Stored, Made extends Change>(
      kind: Kind<Record, Made>,
      given: Record,
    ): Promise<void> {
      const record = storable(kind, given);
      const row = {
        accountId,
        kind: kind.name,
        id: record.id,
        itemId: kind.itemIdOf(record),
        sequence,
        record,
      };
      await tx
        .insert(records)
        .values(row)
        .onConflictDoUpdate({ target: [records.accountId, records.kind, records.id], set: row });
    },
  };
}
