import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { Account } from '@dorvel/core/model';
import { and, count, eq, gt, lt } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Database } from './open';
import { accounts, sessions } from './schema';

const DAY_MS = 24 * 60 * 60 * 1000;
const SESSION_LIFE_MS = 90 * DAY_MS;
const ROTATE_AFTER_MS = DAY_MS;
/** Requests under way while a session is rotated still carry the old token. */
const ROTATION_GRACE_MS = 60_000;

/** argon2id with OWASP's parameters (Password Storage Cheat Sheet: 19 MiB, 2 passes, 1 lane), the package's defaults. */
const ARGON2 = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export interface OpenSession {
  account: Account;
  /** A new token when the session was rotated; the caller sets the cookie anew. */
  rotatedTo: string | null;
}

/** Accounts and their sessions. */
export function accountRepository(database: Database, now: () => number) {
  const hashToken = (token: string) => createHash('sha256').update(token).digest('hex');
  // Checked when no account has the mail address, so that the answer takes as long as a wrong passphrase.
  const nobody = hash(randomBytes(16).toString('hex'), ARGON2);

  const open = async (accountId: string): Promise<string> => {
    const token = randomBytes(32).toString('base64url');
    const createdAt = now();
    await database.write(async (tx) => {
      await tx.insert(sessions).values({
        tokenHash: hashToken(token),
        accountId,
        createdAt,
        expiresAt: createdAt + SESSION_LIFE_MS,
      });
      await tx.delete(sessions).where(lt(sessions.expiresAt, createdAt));
    });
    return token;
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

    /** @returns a session token, or null when mail address and passphrase do not belong together */
    async signIn(mail: string, passphrase: string): Promise<{ account: Account; token: string } | null> {
      const [row] = await database.read.select().from(accounts).where(eq(accounts.mail, mail));
      const right = await verify(row?.passphraseHash ?? (await nobody), passphrase);
      if (!row || !right) return null;
      return { account: { id: row.id, mail: row.mail, name: row.name }, token: await open(row.id) };
    },

    /** The session behind a token; rotated when it is older than a day. */
    async resume(token: string): Promise<OpenSession | null> {
      const tokenHash = hashToken(token);
      const [row] = await database.read
        .select({ account: { id: accounts.id, mail: accounts.mail, name: accounts.name }, session: sessions })
        .from(sessions)
        .innerJoin(accounts, eq(accounts.id, sessions.accountId))
        .where(and(eq(sessions.tokenHash, tokenHash), gt(sessions.expiresAt, now())));
      if (!row) return null;
      const rotatedAlready = row.session.expiresAt - now() <= ROTATION_GRACE_MS;
      if (rotatedAlready || now() - row.session.createdAt < ROTATE_AFTER_MS)
        return { account: row.account, rotatedTo: null };
      const rotatedTo = await open(row.account.id);
      await database.write((tx) =>
        tx
          .update(sessions)
          .set({ expiresAt: now() + ROTATION_GRACE_MS })
          .where(eq(sessions.tokenHash, tokenHash)),
      );
      return { account: row.account, rotatedTo };
    },

    async signOut(token: string): Promise<void> {
      await database.write((tx) => tx.delete(sessions).where(eq(sessions.tokenHash, hashToken(token))));
    },
  };
}
export type Accounts = ReturnType<typeof accountRepository>;
