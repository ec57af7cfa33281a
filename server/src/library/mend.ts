import { Activity, Copy, Feed, Item, withinBounds } from '@dorvel/core/model';
import { and, eq, sql } from 'drizzle-orm';
import type { z } from 'zod';
import { libraryOf } from './library';
import type { Database } from '../db/open';
import { KINDS, type RecordKind } from './records';
import { accounts, activities, copies, feeds, items, records } from '../db/schema';
import { readStoredItem } from './stored';

/** A stored record that is not as it should be. */
export interface Fault {
  /** `an item`, `a feed`… */
  what: string;
  accountId: string;
  id: string;
  /** What would be cut; null when it cannot be read at all. */
  cut: string[] | null;
  record: unknown;
  /** Puts it right, so that devices fetch it anew. Of what cannot be read, items keep their address; all else is taken out. */
  mend(): Promise<void>;
}

interface Kind {
  what: string;
  table: typeof items | typeof activities | typeof feeds | typeof copies | typeof records;
  schema: z.ZodType;
  /** Of the records table, the kind of these. */
  kind?: RecordKind;
}

const ALL: readonly Kind[] = [
  { what: 'item', table: items, schema: Item },
  { what: 'copy', table: copies, schema: Copy },
  { what: 'sitting', table: activities, schema: Activity },
  { what: 'feed', table: feeds, schema: Feed },
  ...(Object.keys(KINDS) as RecordKind[]).map((kind) => ({
    what: kind,
    table: records,
    schema: KINDS[kind],
    kind,
  })),
];

/** How many records there are of a kind, and those that are not as they should be. */
export async function examine(
  database: Database,
): Promise<{ what: string; count: number; faults: Fault[] }[]> {
  const found = [];
  for (const kind of ALL) {
    const { what, table, schema } = kind;
    const rows = await database.read
      .select({ accountId: table.accountId, id: table.id, record: table.record })
      .from(table)
      .where(kind.kind ? eq(records.kind, kind.kind) : undefined);
    const faults = rows.flatMap(({ accountId, id, record }): Fault[] => {
      const bounded = withinBounds(schema, record);
      if (bounded.ok && bounded.cut.length === 0) return [];
      const cut = bounded.ok ? bounded.cut : null;
      const mended = bounded.ok ? bounded.record : what === 'item' ? readStoredItem(record) : null;
      return [
        { what, accountId, id, cut, record, mend: () => mend(database, kind, { accountId, id }, mended) },
      ];
    });
    found.push({ what, count: rows.length, faults });
  }
  return found;
}

async function mend(
  database: Database,
  { table, kind, what }: Kind,
  { accountId, id }: { accountId: string; id: string },
  mended: unknown,
): Promise<void> {
  if (what === 'item' && mended !== null) {
    await libraryOf(database, accountId).change((write) => write.put(mended as Item));
    return;
  }
  const one = and(
    eq(table.accountId, accountId),
    eq(table.id, id),
    kind ? eq(records.kind, kind) : undefined,
  );
  await database.write(async (tx) => {
    if (mended === null) {
      await tx.delete(table).where(one);
      return;
    }
    const [account] = await tx
      .update(accounts)
      .set({ sequence: sql`${accounts.sequence} + 1` })
      .where(eq(accounts.id, accountId))
      .returning({ sequence: accounts.sequence });
    const sequence = 'sequence' in table ? { sequence: account?.sequence } : {};
    await tx
      .update(table)
      .set({ record: mended, ...sequence })
      .where(one);
  });
}
