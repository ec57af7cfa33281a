import type { Invitation } from '@dorvel/core/model';
import { and, asc, count, eq, gt, lt } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Database } from '../db/open';
import { invitations } from '../db/schema';
import { hashOfCode, newCode } from './codes';

const LIFE_MS = 7 * 24 * 60 * 60 * 1000;
/** As many may be open at once. */
const MOST = 20;

/** Codes by which readers let others make an account. They are used up where the account is made; see accounts.ts. */
export function invitationRepository(database: Database, now: () => number) {
  const shown = { id: invitations.id, madeAt: invitations.madeAt, expiresAt: invitations.expiresAt };
  const ofAccount = (accountId: string) => eq(invitations.accountId, accountId);
  return {
    /** @returns null when too many are open */
    async make(accountId: string): Promise<{ invitation: Invitation; code: string } | null> {
      const code = newCode();
      const invitation = { id: uuidv7(), madeAt: now(), expiresAt: now() + LIFE_MS };
      return database.write(async (tx) => {
        await tx.delete(invitations).where(lt(invitations.expiresAt, now()));
        const [open] = await tx.select({ n: count() }).from(invitations).where(ofAccount(accountId));
        if ((open?.n ?? 0) >= MOST) return null;
        await tx.insert(invitations).values({ ...invitation, accountId, codeHash: hashOfCode(code) });
        return { invitation, code };
      });
    },

    list: (accountId: string): Promise<Invitation[]> =>
      database.read
        .select(shown)
        .from(invitations)
        .where(and(ofAccount(accountId), gt(invitations.expiresAt, now())))
        .orderBy(asc(invitations.madeAt)),

    /** @returns false when the account has no such invitation */
    async withdraw(accountId: string, id: string): Promise<boolean> {
      const gone = await database.write((tx) =>
        tx
          .delete(invitations)
          .where(and(ofAccount(accountId), eq(invitations.id, id)))
          .returning({ id: invitations.id }),
      );
      return gone.length > 0;
    },
  };
}
export type Invitations = ReturnType<typeof invitationRepository>;
