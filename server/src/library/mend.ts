import { Copy, type Item, withinBounds } from '@dorvel/core/model';
import { itemKind, type Kind, REGISTRY } from '@dorvel/core/records';
import { and, eq, sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { Database } from '../db/open';
import { accounts, copies, records } from '../db/schema';
import { libraryOf, tableOf } from './library';

/** A stored record that is not as it should be. */
export interface Fault {
  /** `an item`, `a feed`… */
  what: string;
  accountId: string;
  id: string;
  /** What would be cut; null when it cannot be read at all. */
  cut: string[] | null;
  record: unknown;
  /** Puts it right, so that devices fetch it again. Of what cannot be read, items keep their address; all else is taken out. */
  mend(): Promise<void>;
}

/** What is examined: records of a kind, and the copies that items have. */
interface Examined {
  what: string;
  table: ReturnType<typeof tableOf> | typeof copies;
  schema: z.ZodType;
  /** Null for copies, which are no records. */
  kind: Kind | null;
}

const ALL: readonly Examined[] = [
  { what: 'copy', table: copies, schema: Copy, kind: null },
  ...REGISTRY.kinds.map((kind) => ({ what: kind.name, table: tableOf(kind), schema: kind.schema, kind })),
];

/** How many records there are of a kind, and those that are not as they should be. */
export async function examine(
  database: Database,
): Promise<{ what: string; plural: string; count: number; faults: Fault[] }[]> {
  const found = [];
  for (const examined of ALL) {
    const { what, table, schema, kind } = examined;
    const rows = await database.read
      .select({ accountId: table.accountId, id: table.id, record: table.record })
      .from(table)
      .where(kind && table === records ? eq(records.kind, kind.name) : undefined);
    const faults = rows.flatMap(({ accountId, id, record }): Fault[] => {
      const bounded = withinBounds(schema, record);
      if (bounded.ok && bounded.cut.length === 0) return [];
      const cut = bounded.ok ? bounded.cut : null;
      const mended = bounded.ok ? bounded.record : (kind?.rescue?.(record) ?? null);
      return [{ what, accountId, id, cut, record, mend: () => mend(database, examined, { accountId, id }, mended) }];
    });
    found.push({ what, plural: kind?.plural ?? 'copies', count: rows.length, faults });
  }
  return found;
}

async function mend(
  database: Database,
  { table, kind }: Examined,
  { accountId, id }: { accountId: string; id: string },
  mended: unknown,
): Promise<void> {
  if (kind?.name === itemKind.name && mended !== null) {
    await libraryOf(database, accountId).change((write) => write.put(mended as Item));
    return;
  }
  const one = and(
    eq(table.accountId, accountId),
    eq(table.id, id),
    kind && table === records ? eq(records.kind, kind.name) : undefined,
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
