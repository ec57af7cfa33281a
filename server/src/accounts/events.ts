import { AccountEvent, type AccountEventKind } from '@dorvel/core/model';
import { and, desc, eq, lt, lte } from 'drizzle-orm';
import type { Database } from '../db/open';
import { accountEvents } from '../db/schema';
import type { Caller } from './caller';

const KEPT_MS = 365 * 24 * 60 * 60 * 1000;
/** Of an account as many are kept: whoever tries passphrases fills no disk. */
const MOST = 500;
const SHOWN = 100;

/** What was done with accounts: written down for their readers, and kept for a year. */
export function accountEventLog(database: Database, now: () => number) {
  return {
    async note(accountId: string, kind: AccountEventKind, { device, place }: Caller, about?: string): Promise<void> {
      const ofAccount = eq(accountEvents.accountId, accountId);
      await database.write(async (tx) => {
        const row = { accountId, at: now(), kind, device, place, about: about ?? null };
        await tx.insert(accountEvents).values(row);
        await tx.delete(accountEvents).where(and(ofAccount, lt(accountEvents.at, now() - KEPT_MS)));
        const [oldest] = await tx
          .select({ id: accountEvents.id })
          .from(accountEvents)
          .where(ofAccount)
          .orderBy(desc(accountEvents.id))
          .limit(1)
          .offset(MOST);
        if (oldest) await tx.delete(accountEvents).where(and(ofAccount, lte(accountEvents.id, oldest.id)));
      });
    },

    /** The newest first. */
    async list(accountId: string): Promise<AccountEvent[]> {
      const rows = await database.read
        .select()
        .from(accountEvents)
        .where(eq(accountEvents.accountId, accountId))
        .orderBy(desc(accountEvents.id))
        .limit(SHOWN);
      return rows.flatMap((row) => AccountEvent.safeParse(row).data ?? []);
    },
  };
}
export type AccountEvents = ReturnType<typeof accountEventLog>;
