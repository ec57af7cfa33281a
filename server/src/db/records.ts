import { Highlight, SavedSearch } from '@dorvel/core/model';
import { and, eq } from 'drizzle-orm';
import type { Transaction } from './open';
import { records } from './schema';

/** All highlights of an item, removed ones too. */
export async function highlightsIn(
  from: Pick<Transaction, 'select'>,
  accountId: string,
  itemId: string,
): Promise<Highlight[]> {
  const rows = await from
    .select({ record: records.record })
    .from(records)
    .where(and(eq(records.accountId, accountId), eq(records.kind, 'highlight'), eq(records.itemId, itemId)));
  return rows.map(({ record }) => Highlight.parse(record));
}

/** The small records of one account, in a change of its library. */
export function recordWriter(tx: Transaction, accountId: string, sequence: number) {
  async function read(kind: 'highlight' | 'search', id: string): Promise<unknown> {
    const [row] = await tx
      .select({ record: records.record })
      .from(records)
      .where(and(eq(records.accountId, accountId), eq(records.kind, kind), eq(records.id, id)));
    return row?.record;
  }
  async function put(
    kind: 'highlight' | 'search',
    record: { id: string },
    itemId: string | null,
  ): Promise<void> {
    const row = { accountId, kind, id: record.id, itemId, sequence, record };
    await tx
      .insert(records)
      .values(row)
      .onConflictDoUpdate({ target: [records.accountId, records.id], set: row });
  }
  return {
    async highlight(id: string): Promise<Highlight | undefined> {
      return Highlight.optional().parse(await read('highlight', id));
    },
    highlightsIn: (itemId: string) => highlightsIn(tx, accountId, itemId),
    putHighlight: (highlight: Highlight) => put('highlight', highlight, highlight.itemId),
    async search(id: string): Promise<SavedSearch | undefined> {
      return SavedSearch.optional().parse(await read('search', id));
    },
    putSearch: (search: SavedSearch) => put('search', search, null),
  };
}
