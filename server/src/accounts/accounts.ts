import { randomBytes } from 'node:crypto';
import type { Account } from '@dorvel/core/model';
import { hash, verify } from '@node-rs/argon2';
import { and, count, eq, gt } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Database, Transaction } from '../db/open';
import { accounts, invitations, passkeys } from '../db/schema';
import { hashOfCode } from './codes';

/** argon2id with OWASP's parameters (Password Storage Cheat Sheet: 19 MiB, 2 passes, 1 lane), the package's defaults. */
const ARGON2 = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Accounts and their passphrases. */
export function accountRepository(database: Database, now: () => number) {
  // Checked when no account has the mail address, so that the answer takes as long as a wrong passphrase.
  const nobody = hash(randomBytes(16).toString('hex'), ARGON2);
  const shown = { id: accounts.id, mail: accounts.mail, name: accounts.name };

  /** @param allowed asked in the transaction: who lets the reader in, or false for nobody */
  const insert = async (
    { mail, name, passphrase }: { mail: string; name: string; passphrase: string },
    allowed: (tx: Transaction) => Promise<string | null | false>,
  ): Promise<Account | null> => {
    const account = { id: uuidv7(), mail, name };
    const passphraseHash = await hash(passphrase, ARGON2);
    return database.write(async (tx) => {
      const invitedBy = await allowed(tx);
      if (invitedBy === false) return null;
      const made = await tx
        .insert(accounts)
        .values({ ...account, passphraseHash, createdAt: now(), invitedBy })
        .onConflictDoNothing()
        .returning({ id: accounts.id });
      return made.length > 0 ? account : null;
    });
  };

  return {
    async count(): Promise<number> {
      const [row] = await database.read.select({ n: count() }).from(accounts);
      return row?.n ?? 0;
    },

    /** @returns null when the mail address has an account already */
    create: (mail: string, name: string, passphrase: string): Promise<Account | null> =>
      insert({ mail, name, passphrase }, () => Promise.resolve(null)),

    /** Makes the first account of an empty library. @returns null when there is an account already */
    createFirst: (mail: string, name: string, passphrase: string): Promise<Account | null> =>
      insert({ mail, name, passphrase }, async (tx) => {
        const [any] = await tx.select({ id: accounts.id }).from(accounts).limit(1);
        return any ? false : null;
      }),

    /**
     * Makes an account for who has an invitation, which is used up by it.
     *
     * @returns `no-invitation` when the code is of none; `known-mail` when the mail address has an account already, and
     *   then the invitation stays good
     */
    async createInvited(
      mail: string,
      name: string,
      passphrase: string,
      code: string,
    ): Promise<Account | 'no-invitation' | 'known-mail'> {
      const invitation = and(eq(invitations.codeHash, hashOfCode(code)), gt(invitations.expiresAt, now()));
      const account = await insert({ mail, name, passphrase }, async (tx) => {
        const [known] = await tx.select({ id: accounts.id }).from(accounts).where(eq(accounts.mail, mail));
        if (known) return false;
        const [used] = await tx.delete(invitations).where(invitation).returning({ by: invitations.accountId });
        return used?.by ?? false;
      });
      if (account) return account;
      const [still] = await database.read.select({ id: invitations.id }).from(invitations).where(invitation);
      return still ? 'known-mail' : 'no-invitation';
    },

    /** @returns null when mail address and passphrase do not belong together; with whose account it was tried, if anybody's */
    async whose(mail: string, passphrase: string): Promise<{ account: Account | null; tried: string | null }> {
      const [row] = await database.read
        .select({ account: shown, passphraseHash: accounts.passphraseHash })
        .from(accounts)
        .where(eq(accounts.mail, mail));
      const isRight = await verify(row?.passphraseHash ?? (await nobody), passphrase);
      return { account: row && isRight ? row.account : null, tried: row?.account.id ?? null };
    },

    async byMail(mail: string): Promise<Account | null> {
      const [row] = await database.read.select(shown).from(accounts).where(eq(accounts.mail, mail));
      return row ?? null;
    },

    async byId(accountId: string): Promise<Account | null> {
      const [row] = await database.read.select(shown).from(accounts).where(eq(accounts.id, accountId));
      return row ?? null;
    },

    all: (): Promise<Account[]> => database.read.select(shown).from(accounts).orderBy(accounts.createdAt),

    async isPassphrase(accountId: string, passphrase: string): Promise<boolean> {
      const [row] = await database.read
        .select({ passphraseHash: accounts.passphraseHash })
        .from(accounts)
        .where(eq(accounts.id, accountId));
      return row !== undefined && (await verify(row.passphraseHash, passphrase));
    },

    async setPassphrase(accountId: string, passphrase: string): Promise<void> {
      const passphraseHash = await hash(passphrase, ARGON2);
      await database.write((tx) => tx.update(accounts).set({ passphraseHash }).where(eq(accounts.id, accountId)));
    },

    async isPasskeysOnly(accountId: string): Promise<boolean> {
      const [row] = await database.read
        .select({ only: accounts.passkeysOnly })
        .from(accounts)
        .where(eq(accounts.id, accountId));
      return row?.only ?? false;
    },

    /** Has only a passkey open the account, or the passphrase too. @returns false when it has no passkey that would open it */
    setPasskeysOnly: (accountId: string, passkeysOnly: boolean): Promise<boolean> =>
      database.write(async (tx) => {
        const ofAccount = eq(passkeys.accountId, accountId);
        const [any] = await tx.select({ id: passkeys.id }).from(passkeys).where(ofAccount).limit(1);
        if (passkeysOnly && !any) return false;
        await tx.update(accounts).set({ passkeysOnly }).where(eq(accounts.id, accountId));
        return true;
      }),

    /** Only who was not let in by another reader lets others in. */
    async mayInvite(accountId: string): Promise<boolean> {
      const [row] = await database.read
        .select({ invitedBy: accounts.invitedBy })
        .from(accounts)
        .where(eq(accounts.id, accountId));
      return row?.invitedBy === null;
    },
  };
}
export type Accounts = ReturnType<typeof accountRepository>;
