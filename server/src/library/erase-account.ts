import { eq, inArray } from 'drizzle-orm';
import type { Database } from '../db/open';
import { accounts, pictures } from '../db/schema';
import { dropFindables } from './findable';

const AT_ONCE = 500;

/**
 * Erases an account with all that the database has of it, for good.
 *
 * @returns hashes of the files that nothing refers to now: pictures are kept once for all accounts
 */
export async function eraseAccount(database: Database, accountId: string): Promise<string[]> {
  const hashes = await database.write(async (tx) => {
    const mine = await tx.select({ hash: pictures.hash }).from(pictures).where(eq(pictures.accountId, accountId));
    await dropFindables(tx, accountId);
    // What belongs to it goes with it: every table that names an account says so.
    await tx.delete(accounts).where(eq(accounts.id, accountId));
    return mine.map(({ hash }) => hash);
  });
  const unused: string[] = [];
  for (let at = 0; at < hashes.length; at += AT_ONCE) {
    const some = hashes.slice(at, at + AT_ONCE);
    const rows = await database.read
      .selectDistinct({ hash: pictures.hash })
      .from(pictures)
      .where(inArray(pictures.hash, some));
    const used = new Set(rows.map(({ hash }) => hash));
    unused.push(...some.filter((hash) => !used.has(hash)));
  }
  return unused;
}
