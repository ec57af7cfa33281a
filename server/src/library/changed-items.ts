import type { Item } from '@dorvel/core/model';
import { and, asc, eq, gt, lte } from 'drizzle-orm';
import type { Database } from '../db/open';
import { accounts, items } from '../db/schema';
import { readStoredItem } from './stored';

/** A server of databases answers no more than 10 MB at once; an item has some kilobytes. */
const PAGE = 500;

/**
 * Goes through the items that have changed, page by page.
 *
 * @param after the sequence number up to which they are known
 * @param take is given each in turn, in no order that matters
 * @returns the number up to which they are known then: what changes meanwhile comes the next time
 */
export async function eachItemChanged(
  database: Database,
  accountId: string,
  after: number,
  take: (item: Item) => Promise<void> | void,
): Promise<number> {
  const [account] = await database.read
    .select({ sequence: accounts.sequence })
    .from(accounts)
    .where(eq(accounts.id, accountId));
  const until = account?.sequence ?? after;
  if (until <= after) return after;
  const changed = and(eq(items.accountId, accountId), gt(items.sequence, after), lte(items.sequence, until));
  for (let last = ''; ;) {
    const rows = await database.read
      .select({ id: items.id, record: items.record })
      .from(items)
      .where(and(changed, gt(items.id, last)))
      .orderBy(asc(items.id))
      .limit(PAGE);
    for (const { record } of rows) {
      const item = readStoredItem(record);
      if (item) await take(item);
    }
    if (rows.length < PAGE) return until;
    last = rows.at(-1)?.id ?? last;
  }
}
