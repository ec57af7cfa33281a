import { AccountEvent, type AccountEventKind } from '@dorvel/core/model';
import { and, count, desc, eq, gte, inArray, lt, lte } from 'drizzle-orm';
import type { Database } from '../db/open';
import { accountEvents } from '../db/schema';
import type { Caller } from './caller';

const KEPT_MS = 365 * 24 * 60 * 60 * 1000;
/** Of an account as many are kept: whoever tries passphrases fills no disk. */
const MOST = 500;
const SHOWN = 100;
/** What opens an account on a device. */
export const OPENINGS: readonly AccountEventKind[] = [
  'signed-in',
  'signed-in-by-passkey',
  'passphrase-by-code',
  'account-made',
];

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

    /** Whether an account was ever opened, and whether on such a device; as far back as the log goes. */
    async openedOn(accountId: string, device: string): Promise<{ ever: boolean; there: boolean }> {
      const rows = await database.read
        .selectDistinct({ device: accountEvents.device })
        .from(accountEvents)
        .where(and(eq(accountEvents.accountId, accountId), inArray(accountEvents.kind, [...OPENINGS])));
      return { ever: rows.length > 0, there: rows.some((row) => row.device === device) };
    },

    /** How often something was done with an account since an instant, as far as the log goes. */
    async countSince(accountId: string, kind: AccountEventKind, since: number): Promise<number> {
      const [row] = await database.read
        .select({ n: count() })
        .from(accountEvents)
        .where(and(eq(accountEvents.accountId, accountId), eq(accountEvents.kind, kind), gte(accountEvents.at, since)));
      return row?.n ?? 0;
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
