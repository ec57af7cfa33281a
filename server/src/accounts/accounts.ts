import { createHash, randomBytes } from 'node:crypto';
import type { Account } from '@dorvel/core/model';
import { hash, verify } from '@node-rs/argon2';
import { and, count, eq, gt, lt } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Database, Transaction } from '../db/open';
import { accounts, sessions } from '../db/schema';

const DAY_MS = 24 * 60 * 60 * 1000;
const SESSION_LIFE_MS = 90 * DAY_MS;
const ROTATE_AFTER_MS = DAY_MS;
/** Requests under way while a session is rotated still carry the old token. */
const ROTATION_GRACE_MS = 60_000;

/** argon2id with OWASP's parameters (Password Storage Cheat Sheet: 19 MiB, 2 passes, 1 lane), the package's defaults. */
const ARGON2 = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export interface OpenSession {
  account: Account;
  /** A new token when the session was rotated; the caller sets the cookie again. */
  rotatedTo: string | null;
}

/** Accounts and their sessions. */
export function accountRepository(database: Database, now: () => number) {
  const hashToken = (token: string) => createHash('sha256').update(token).digest('hex');
  // Checked when no account has the mail address, so that the answer takes as long as a wrong passphrase.
  const nobody = hash(randomBytes(16).toString('hex'), ARGON2);

  const open = async (accountId: string): Promise<string> => {
    const token = newToken();
    await database.write((tx) => insert(tx, token, accountId, null));
    return token;
  };

  const newToken = () => randomBytes(32).toString('base64url');
  const insert = async (tx: Transaction, token: string, accountId: string, replaces: string | null) => {
    const createdAt = now();
    const expiresAt = createdAt + SESSION_LIFE_MS;
    await tx.insert(sessions).values({ tokenHash: hashToken(token), accountId, createdAt, expiresAt, replaces });
    await tx.delete(sessions).where(lt(sessions.expiresAt, createdAt));
  };

  /**
   * Opens another session for a device, to replace the one it has when it is used.
   *
   * @returns null when one was opened a moment ago: its answer is on its way, and of several that are on their way the
   *   device might keep the wrong one
   */
  const replace = (accountId: string, replaced: string): Promise<string | null> =>
    database.write(async (tx) => {
      const pending = eq(sessions.replaces, replaced);
      const [known] = await tx.select({ createdAt: sessions.createdAt }).from(sessions).where(pending);
      if (known && now() - known.createdAt < ROTATION_GRACE_MS) return null;
      // One that was opened long ago and never used never reached its device.
      if (known) await tx.delete(sessions).where(pending);
      const token = newToken();
      await insert(tx, token, accountId, replaced);
      return token;
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

  return {
    async count(): Promise<number> {
      const [row] = await database.read.select({ n: count() }).from(accounts);
      return row?.n ?? 0;
    },

    /** @returns null when the mail address has an account already */
    async create(mail: string, name: string, passphrase: string): Promise<Account | null> {
      const account = { id: uuidv7(), mail, name };
      const passphraseHash = await hash(passphrase, ARGON2);
      const made = await database.write((tx) =>
        tx
          .insert(accounts)
          .values({ ...account, passphraseHash, createdAt: now() })
          .onConflictDoNothing()
          .returning({ id: accounts.id }),
      );
      return made.length > 0 ? account : null;
    },

    /** Makes the first account of an empty library. @returns null when there is an account already */
    async createFirst(mail: string, name: string, passphrase: string): Promise<Account | null> {
      const account = { id: uuidv7(), mail, name };
      const passphraseHash = await hash(passphrase, ARGON2);
      return database.write(async (tx) => {
        const [any] = await tx.select({ id: accounts.id }).from(accounts).limit(1);
        if (any) return null;
        await tx.insert(accounts).values({ ...account, passphraseHash, createdAt: now() });
        return account;
      });
    },

    /** @returns a session token, or null when mail address and passphrase do not belong together */
    async signIn(mail: string, passphrase: string): Promise<{ account: Account; token: string } | null> {
      const [row] = await database.read.select().from(accounts).where(eq(accounts.mail, mail));
      const right = await verify(row?.passphraseHash ?? (await nobody), passphrase);
      if (!row || !right) return null;
      return { account: { id: row.id, mail: row.mail, name: row.name }, token: await open(row.id) };
    },

    /**
     * The session behind a token. One that is older than a day gets another token, and goes on being good until that is
     * used: the answer which carried it may have been lost.
     */
    async resume(token: string): Promise<OpenSession | null> {
      const tokenHash = hashToken(token);
      const [row] = await database.read
        .select({ account: { id: accounts.id, mail: accounts.mail, name: accounts.name }, session: sessions })
        .from(sessions)
        .innerJoin(accounts, eq(accounts.id, sessions.accountId))
        .where(and(eq(sessions.tokenHash, tokenHash), gt(sessions.expiresAt, now())));
      if (!row) return null;
      const { session, account } = row;
      if (session.replaces !== null) await retire(tokenHash, session.replaces);
      const isOnItsWayOut = session.expiresAt - now() <= ROTATION_GRACE_MS;
      if (isOnItsWayOut || now() - session.createdAt < ROTATE_AFTER_MS) return { account, rotatedTo: null };
      return { account, rotatedTo: await replace(account.id, tokenHash) };
    },

    /** Whether a token still opens an account. */
    async isOpen(token: string): Promise<boolean> {
      const rows = await database.read
        .select({ tokenHash: sessions.tokenHash })
        .from(sessions)
        .where(and(eq(sessions.tokenHash, hashToken(token)), gt(sessions.expiresAt, now())));
      return rows.length > 0;
    },

    async signOut(token: string): Promise<void> {
      await database.write((tx) => tx.delete(sessions).where(eq(sessions.tokenHash, hashToken(token))));
    },
  };
}
export type Accounts = ReturnType<typeof accountRepository>;
