import { createHash, randomBytes } from 'node:crypto';
import type { Account, Session } from '@dorvel/core/model';
import { and, desc, eq, gt, lt, ne } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Database, Transaction } from '../db/open';
import { accounts, sessions } from '../db/schema';
import type { Caller } from './caller';

const DAY_MS = 24 * 60 * 60 * 1000;
/** A session that is not used for so long has ended. */
const IDLE_MS = 90 * DAY_MS;
/** However much it is used, after so long one signs in anew (OWASP ASVS 5, 7.3.2). */
const LONGEST_MS = 365 * DAY_MS;
const ROTATE_AFTER_MS = DAY_MS;
/** Requests under way while a session is rotated still carry the old token. */
const ROTATION_GRACE_MS = 60_000;
/** The last use is written down no more often than this. */
const USE_STEP_MS = 5 * 60_000;

export interface OpenSession {
  account: Account;
  id: string;
  /** A new token when the session was rotated; the caller sets the cookie again. */
  rotatedTo: string | null;
}

type Row = typeof sessions.$inferSelect;
/** What of a session stays when its token is replaced. */
type Lasting = Pick<Row, 'id' | 'accountId' | 'device' | 'place' | 'signedInAt'>;

/**
 * Who is signed in, by tokens that are replaced day by day.
 *
 * @param failed is told when the last use could not be written down
 */
export function sessionRepository(database: Database, now: () => number, failed: (error: unknown) => void) {
  const hashToken = (token: string) => createHash('sha256').update(token).digest('hex');
  const isGood = () => gt(sessions.expiresAt, now());

  const insert = async (tx: Transaction, lasting: Lasting, replaces: string | null): Promise<string> => {
    const token = randomBytes(32).toString('base64url');
    const createdAt = now();
    const expiresAt = Math.min(createdAt + IDLE_MS, lasting.signedInAt + LONGEST_MS);
    await tx
      .insert(sessions)
      .values({ ...lasting, tokenHash: hashToken(token), createdAt, lastUsedAt: createdAt, expiresAt, replaces });
    await tx.delete(sessions).where(lt(sessions.expiresAt, createdAt));
    return token;
  };

  /**
   * Opens another session for a device, to replace the one it has when it is used.
   *
   * @returns null when one was opened a moment ago: its answer is on its way, and of several that are on their way the
   *   device might keep the wrong one
   */
  const replace = (old: Row): Promise<string | null> =>
    database.write(async (tx) => {
      // It may have been ended a moment ago, from elsewhere.
      const [still] = await tx.select({ id: sessions.id }).from(sessions).where(eq(sessions.tokenHash, old.tokenHash));
      if (!still) return null;
      const pending = eq(sessions.replaces, old.tokenHash);
      const [known] = await tx.select({ createdAt: sessions.createdAt }).from(sessions).where(pending);
      if (known && now() - known.createdAt < ROTATION_GRACE_MS) return null;
      // One that was opened long ago and never used never reached its device.
      if (known) await tx.delete(sessions).where(pending);
      const { id, accountId, device, place, signedInAt } = old;
      return insert(tx, { id, accountId, device, place, signedInAt }, old.tokenHash);
    });

  /** The token that was replaced is good for the requests that are under way with it, and no longer. */
  const retire = async (tokenHash: string, replaced: string): Promise<void> => {
    await database.write(async (tx) => {
      await tx
        .update(sessions)
        .set({ expiresAt: now() + ROTATION_GRACE_MS })
        .where(eq(sessions.tokenHash, replaced));
      await tx.update(sessions).set({ replaces: null }).where(eq(sessions.tokenHash, tokenHash));
    });
  };

  const end = async (which: ReturnType<typeof and>): Promise<{ id: string; device: string }[]> => {
    const gone = await database.write((tx) =>
      tx.delete(sessions).where(which).returning({ id: sessions.id, device: sessions.device }),
    );
    return [...new Map(gone.map((each) => [each.id, each])).values()];
  };

  return {
    /** @returns the token for a device's cookie */
    open: (accountId: string, { device, place }: Caller): Promise<string> =>
      database.write((tx) => insert(tx, { id: uuidv7(), accountId, device, place, signedInAt: now() }, null)),

    /**
     * The session behind a token. One that is older than a day gets another token, and goes on being good until that is
     * used: the answer which carried it may have been lost.
     */
    async resume(token: string, place: string): Promise<OpenSession | null> {
      const tokenHash = hashToken(token);
      const [row] = await database.read
        .select({ account: { id: accounts.id, mail: accounts.mail, name: accounts.name }, session: sessions })
        .from(sessions)
        .innerJoin(accounts, eq(accounts.id, sessions.accountId))
        .where(and(eq(sessions.tokenHash, tokenHash), isGood()));
      if (!row) return null;
      const { session, account } = row;
      const { id } = session;
      if (session.replaces !== null) await retire(tokenHash, session.replaces);
      if (now() - session.lastUsedAt >= USE_STEP_MS || session.place !== place)
        // Nobody waits for it: who only reads gets on while another program holds the database.
        database
          .write((tx) => tx.update(sessions).set({ lastUsedAt: now(), place }).where(eq(sessions.tokenHash, tokenHash)))
          .catch(failed);
      const isOnItsWayOut = session.expiresAt - now() <= ROTATION_GRACE_MS;
      if (isOnItsWayOut || now() - session.createdAt < ROTATE_AFTER_MS) return { account, id, rotatedTo: null };
      return { account, id, rotatedTo: await replace(session) };
    },

    /** Whether a session is still open. */
    async isOpen(id: string): Promise<boolean> {
      const rows = await database.read
        .select({ id: sessions.id })
        .from(sessions)
        .where(and(eq(sessions.id, id), isGood()));
      return rows.length > 0;
    },

    /** Where an account is signed in, the last used first. @param own the session that asks */
    async list(accountId: string, own: string): Promise<Session[]> {
      const rows = await database.read
        .select()
        .from(sessions)
        .where(and(eq(sessions.accountId, accountId), isGood()))
        .orderBy(desc(sessions.lastUsedAt));
      const seen = new Set<string>();
      return rows.flatMap(({ id, device, place, signedInAt, lastUsedAt }) => {
        if (seen.has(id)) return [];
        seen.add(id);
        return [{ id, device, place, signedInAt, lastUsedAt, isThis: id === own }];
      });
    },

    /** @returns the session that a token was of; null when it was of none */
    async signOut(token: string): Promise<string | null> {
      const [row] = await database.read
        .select({ id: sessions.id })
        .from(sessions)
        .where(eq(sessions.tokenHash, hashToken(token)));
      if (row) await end(eq(sessions.id, row.id));
      return row?.id ?? null;
    },

    /** @returns what was ended; null when the account has no such session */
    async endOne(accountId: string, id: string): Promise<{ id: string; device: string } | null> {
      return (await end(and(eq(sessions.accountId, accountId), eq(sessions.id, id))))[0] ?? null;
    },

    /** Ends all of an account's sessions but one. @param kept null to end all @returns what was ended */
    endOthers: (accountId: string, kept: string | null): Promise<{ id: string; device: string }[]> =>
      end(and(eq(sessions.accountId, accountId), kept === null ? undefined : ne(sessions.id, kept))),
  };
}
export type Sessions = ReturnType<typeof sessionRepository>;
