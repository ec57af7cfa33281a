import { and, eq, gt } from 'drizzle-orm';
import type { Database } from '../db/open';
import { accounts, resetCodes } from '../db/schema';
import { hashOfCode, newCode } from './codes';

/** How long a code is good. */
export const CODE_LIFE_MS = 30 * 60 * 1000;
/** Who asks again within this gets no other: nobody's mail is to be filled by others. */
const REST_MS = 2 * 60 * 1000;

/** Codes by which who has forgotten their passphrase chooses another. */
export function resetCodeRepository(database: Database, now: () => number) {
  return {
    /** @returns null when one was made a moment ago */
    async make(accountId: string): Promise<string | null> {
      const code = newCode();
      return database.write(async (tx) => {
        const [last] = await tx.select().from(resetCodes).where(eq(resetCodes.accountId, accountId));
        if (last && now() - last.madeAt < REST_MS) return null;
        const row = { codeHash: hashOfCode(code), madeAt: now(), expiresAt: now() + CODE_LIFE_MS };
        await tx
          .insert(resetCodes)
          .values({ accountId, ...row })
          .onConflictDoUpdate({ target: resetCodes.accountId, set: row });
        return code;
      });
    },

    /** Uses a code up. @returns whose account it opens; null when it opens none */
    async use(mail: string, code: string): Promise<string | null> {
      return database.write(async (tx) => {
        const [row] = await tx
          .select({ accountId: resetCodes.accountId })
          .from(resetCodes)
          .innerJoin(accounts, eq(accounts.id, resetCodes.accountId))
          .where(
            and(eq(accounts.mail, mail), eq(resetCodes.codeHash, hashOfCode(code)), gt(resetCodes.expiresAt, now())),
          );
        if (!row) return null;
        await tx.delete(resetCodes).where(eq(resetCodes.accountId, row.accountId));
        return row.accountId;
      });
    },
  };
}
export type ResetCodes = ReturnType<typeof resetCodeRepository>;
