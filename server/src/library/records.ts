import { Card, Highlight, SavedSearch, WrittenNote } from '@dorvel/core/model';
import { and, eq } from 'drizzle-orm';
import type { z } from 'zod';
import type { Transaction } from '../db/open';
import { records } from '../db/schema';
import { readStored, storable } from './stored';

/** The kinds of small records that travel to the devices as they are. */
export const KINDS = { highlight: Highlight, search: SavedSearch, note: WrittenNote, card: Card } as const;
export type RecordKind = keyof typeof KINDS;
type RecordOf<Kind extends RecordKind> = z.output<(typeof KINDS)[Kind]>;

/** A stored record as its kind has it; null when it cannot be read. */
export function readRecord<Kind extends RecordKind>(kind: Kind, record: unknown): RecordOf<Kind> | null {
  return readStored(KINDS[kind], record) as RecordOf<Kind> | null;
}

/** The item that a record belongs to, where it belongs to one. */
function itemIdOf(record: RecordOf<RecordKind>): string | null {
  if ('itemId' in record) return record.itemId;
  return 'source' in record ? (record.source?.itemId ?? null) : null;
}

/** All records of a kind that belong to an item, removed ones too. */
export async function recordsIn<Kind extends RecordKind>(
  from: Pick<Transaction, 'select'>,
  accountId: string,
  kind: Kind,
  itemId: string,
): Promise<RecordOf<Kind>[]> {
  const rows = await from
    .select({ record: records.record })
    .from(records)
    .where(and(eq(records.accountId, accountId), eq(records.kind, kind), eq(records.itemId, itemId)));
  return rows.flatMap(({ record }) => readRecord(kind, record) ?? []);
}

/** The small records of one account, in a change of its library. */
export function recordWriter(tx: Transaction, accountId: string, sequence: number) {
  return {
    async record<Kind extends RecordKind>(kind: Kind, id: string): Promise<RecordOf<Kind> | undefined> {
      const [row] = await tx
        .select({ record: records.record })
        .from(records)
        .where(and(eq(records.accountId, accountId), eq(records.kind, kind), eq(records.id, id)));
      return (row && readRecord(kind, row.record)) ?? undefined;
    },
    recordsIn: <Kind extends RecordKind>(kind: Kind, itemId: string) =>
      recordsIn(tx, accountId, kind, itemId),
    /** @throws Unstorable */
    async putRecord<Kind extends RecordKind>(kind: Kind, given: RecordOf<Kind>): Promise<void> {
      const record = storable(KINDS[kind], given) as RecordOf<Kind>;
      const row = { accountId, kind, id: record.id, itemId: itemIdOf(record), sequence, record };
      await tx
        .insert(records)
        .values(row)
        .onConflictDoUpdate({ target: [records.accountId, records.kind, records.id], set: row });
    },
  };
}
