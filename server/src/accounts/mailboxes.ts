import { randomInt } from 'node:crypto';
import { Sender } from '@dorvel/core/model';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import type { Database } from '../db/open';
import { mailboxes } from '../db/schema';

export interface KnownMailbox {
  accountId: string;
  local: string;
  senders: string[];
  /** Milliseconds since 1970. */
  lastUsedAt: number | null;
}

/** No letters and figures that are taken for one another. */
const ALPHABET = 'abcdefghijkmnpqrstuvwxyz23456789';
/** 20 of 32 signs: 100 random bits. */
const LENGTH = 20;

/** Where accounts take mail. */
export function mailboxRepository(database: Database) {
  const parse = (row: typeof mailboxes.$inferSelect | undefined): KnownMailbox | null =>
    row ? { ...row, senders: z.array(Sender).parse(row.senders) } : null;
  const local = () => `save-${Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join('')}`;
  const of = async (accountId: string) => {
    const [row] = await database.read.select().from(mailboxes).where(eq(mailboxes.accountId, accountId));
    return parse(row);
  };
  return {
    /** The account's mailbox, made when it has none yet. */
    async of(accountId: string): Promise<KnownMailbox> {
      await database.write((tx) =>
        tx.insert(mailboxes).values({ accountId, local: local(), senders: [] }).onConflictDoNothing(),
      );
      const known = await of(accountId);
      if (!known) throw new Error('no such account');
      return known;
    },

    /** Whose mailbox a name is; capitals do not count. */
    async named(name: string): Promise<KnownMailbox | null> {
      const [row] = await database.read.select().from(mailboxes).where(eq(mailboxes.local, name.toLowerCase()));
      return parse(row);
    },

    /** Another name from now on; who sends to the one before is refused. */
    async rename(accountId: string): Promise<void> {
      await database.write((tx) =>
        tx.update(mailboxes).set({ local: local() }).where(eq(mailboxes.accountId, accountId)),
      );
    },

    async used(accountId: string, now: number): Promise<void> {
      await database.write((tx) =>
        tx.update(mailboxes).set({ lastUsedAt: now }).where(eq(mailboxes.accountId, accountId)),
      );
    },

    async allow(accountId: string, senders: readonly string[]): Promise<void> {
      await database.write((tx) => tx.update(mailboxes).set({ senders }).where(eq(mailboxes.accountId, accountId)));
    },
  };
}
export type Mailboxes = ReturnType<typeof mailboxRepository>;
