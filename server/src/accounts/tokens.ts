import { createHash, randomBytes } from 'node:crypto';
import type { Account, Token, TokenScope } from '@dorvel/core/model';
import { and, asc, eq, gte, lt } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Database } from '../db/open';
import { accounts, tokens, tokenSaves } from '../db/schema';

/** The last use is written down no more often than this. */
const USE_STEP_MS = 60_000;

/** A token that was used rightly. */
export interface UsedToken {
  id: string;
  /** Where it is used, in its owner's words. */
  name: string;
  account: Account;
}

/** Tokens of accounts. A secret has 256 random bits: no guessing, and no need of a slow hash. */
export function tokenRepository(database: Database, now: () => number) {
  const hash = (secret: string) => createHash('sha256').update(secret).digest('hex');
  const shown = {
    id: tokens.id,
    name: tokens.name,
    scope: tokens.scope,
    madeAt: tokens.madeAt,
    lastUsedAt: tokens.lastUsedAt,
  };
  return {
    async make(accountId: string, name: string, scope: TokenScope): Promise<{ token: Token; secret: string }> {
      const secret = randomBytes(32).toString('base64url');
      const token = { id: uuidv7(), name, scope, madeAt: now(), lastUsedAt: null };
      await database.write((tx) => tx.insert(tokens).values({ ...token, accountId, secretHash: hash(secret) }));
      return { token, secret };
    },

    async list(accountId: string): Promise<Token[]> {
      return database.read
        .select(shown)
        .from(tokens)
        .where(eq(tokens.accountId, accountId))
        .orderBy(asc(tokens.madeAt));
    },

    /** @returns its name; null when the account has no such token */
    async revoke(accountId: string, id: string): Promise<string | null> {
      const [gone] = await database.write((tx) =>
        tx
          .delete(tokens)
          .where(and(eq(tokens.accountId, accountId), eq(tokens.id, id)))
          .returning({ name: tokens.name }),
      );
      return gone?.name ?? null;
    },

    /** @returns their names */
    async revokeAll(accountId: string): Promise<string[]> {
      const gone = await database.write((tx) =>
        tx.delete(tokens).where(eq(tokens.accountId, accountId)).returning({ name: tokens.name }),
      );
      return gone.map(({ name }) => name);
    },

    /** Remembers what a token saved; what was saved before `since` it may not take back any more. */
    async remember(tokenId: string, itemId: string, since: number): Promise<void> {
      await database.write(async (tx) => {
        await tx.delete(tokenSaves).where(lt(tokenSaves.savedAt, since));
        await tx.insert(tokenSaves).values({ tokenId, itemId, savedAt: now() }).onConflictDoNothing();
      });
    },

    async hasSaved(tokenId: string, itemId: string, since: number): Promise<boolean> {
      const rows = await database.read
        .select({ itemId: tokenSaves.itemId })
        .from(tokenSaves)
        .where(and(eq(tokenSaves.tokenId, tokenId), eq(tokenSaves.itemId, itemId), gte(tokenSaves.savedAt, since)));
      return rows.length > 0;
    },

    /** The account that a secret is for, if it is for this; its last use is remembered. */
    async use(secret: string, scope: TokenScope): Promise<UsedToken | null> {
      const [row] = await database.read
        .select({
          account: { id: accounts.id, mail: accounts.mail, name: accounts.name },
          id: tokens.id,
          name: tokens.name,
          lastUsedAt: tokens.lastUsedAt,
        })
        .from(tokens)
        .innerJoin(accounts, eq(accounts.id, tokens.accountId))
        .where(and(eq(tokens.secretHash, hash(secret)), eq(tokens.scope, scope)));
      if (!row) return null;
      const at = now();
      if (at - (row.lastUsedAt ?? 0) >= USE_STEP_MS)
        await database.write((tx) => tx.update(tokens).set({ lastUsedAt: at }).where(eq(tokens.id, row.id)));
      return { id: row.id, name: row.name, account: row.account };
    },
  };
}
export type Tokens = ReturnType<typeof tokenRepository>;
