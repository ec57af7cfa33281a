import { createHash } from 'node:crypto';
import { eq, lt, sql } from 'drizzle-orm';
import type { Store } from 'express-rate-limit';
import type { Database } from '../db/open';
import { tries } from '../db/schema';

/** Counts tries of one kind. @param name what is tried @param windowMs how long each is counted */
export type Tries = (name: string, windowMs: number) => Store;

/**
 * Counts tries where all processes see them, and where they outlive one: who guesses gains nothing by asking another process, or
 * by a restart.
 *
 * @param failed is told when what came to something could not be taken off again
 */
export function triesIn(database: Database, now: () => number, failed: (error: unknown) => void): Tries {
  return (name, windowMs) => {
    // Addresses are not to be kept for longer than they must: what is compared need not be read.
    const keyOf = (whose: string) => createHash('sha256').update(`${name} ${whose}`).digest('hex');
    return {
      async increment(whose) {
        const [row] = await database.write(async (tx) => {
          await tx.delete(tries).where(lt(tries.resetAt, now()));
          return tx
            .insert(tries)
            .values({ key: keyOf(whose), hits: 1, resetAt: now() + windowMs })
            .onConflictDoUpdate({ target: tries.key, set: { hits: sql`${tries.hits} + 1` } })
            .returning({ hits: tries.hits, resetAt: tries.resetAt });
        });
        return { totalHits: row?.hits ?? 1, resetTime: new Date(row?.resetAt ?? now() + windowMs) };
      },
      async decrement(whose) {
        // It comes after the answer: nobody is there any more who could hear of a failure.
        await database
          .write((tx) =>
            tx
              .update(tries)
              .set({ hits: sql`max(0, ${tries.hits} - 1)` })
              .where(eq(tries.key, keyOf(whose))),
          )
          .catch(failed);
      },
      async resetKey(whose) {
        await database.write((tx) => tx.delete(tries).where(eq(tries.key, keyOf(whose))));
      },
    };
  };
}
