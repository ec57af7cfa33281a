import { GivenText } from '@dorvel/core/model';
import { and, asc, count, eq, inArray, lte, min, sql } from 'drizzle-orm';
import type { Database } from '../db/open';
import { jobs } from '../db/schema';

/**
 * Where a text is taken apart. Most are quick; those that are large or turn out to be slow go to the long lane, one at a
 * time, so that they hold up none but their like.
 */
export type Lane = 'quick' | 'long';

export interface Job {
  id: string;
  accountId: string;
  itemId: string;
  lane: Lane;
  /** What the reader gave by hand, to be taken instead of the page. */
  given: GivenText | null;
  /** How often it has been started, this time included. */
  attempts: number;
  /** How often the server ended while it was running. */
  crashes: number;
}

/**
 * Who runs a job says so again and again. Of one that is running and says nothing for so long (its end could not be
 * written to a full disk, say) it is taken that nobody runs it: it is due again.
 */
export const LEASE_MS = 2 * 60 * 1000;

const OPEN = ['waiting', 'running'] as const;

/** The row of captures to be done. A row survives whatever happens to the process. */
export function jobRepository(database: Database, now: () => number) {
  return {
    /** Whatever ran when the process ended is to be run again; it may have been what ended it. */
    async recover(): Promise<number> {
      const rows = await database.write((tx) =>
        tx
          .update(jobs)
          .set({ state: 'waiting', crashes: sql`${jobs.crashes} + 1`, runAt: now(), updatedAt: now() })
          .where(eq(jobs.state, 'running'))
          .returning({ id: jobs.id }),
      );
      return rows.length;
    },

    /** What is still running when the server is ended in good order did not end it. */
    async release(): Promise<void> {
      await database.write((tx) =>
        tx.update(jobs).set({ state: 'waiting', runAt: now() }).where(eq(jobs.state, 'running')),
      );
    },

    /** The jobs of a lane, for a runner. */
    lane(lane: Lane) {
      const isOpen = and(eq(jobs.lane, lane), inArray(jobs.state, OPEN));
      return {
        /** Takes up to `limit` jobs that are due and marks them as running. */
        async take(limit: number): Promise<Job[]> {
          if (limit <= 0) return [];
          return database.write(async (tx) => {
            const due = await tx
              .select({
                id: jobs.id,
                accountId: jobs.accountId,
                itemId: jobs.itemId,
                lane: jobs.lane,
                given: jobs.given,
                attempts: jobs.attempts,
                crashes: jobs.crashes,
              })
              .from(jobs)
              .where(and(isOpen, lte(jobs.runAt, now())))
              .orderBy(asc(jobs.runAt), asc(jobs.id))
              .limit(limit);
            for (const job of due) {
              job.attempts += 1;
              await tx
                .update(jobs)
                .set({ state: 'running', attempts: job.attempts, runAt: now() + LEASE_MS, updatedAt: now() })
                .where(eq(jobs.id, job.id));
            }
            return due.map((job) => ({ ...job, given: GivenText.safeParse(job.given).data ?? null }));
          });
        },

        /** When the next one is due; null when none waits. */
        async nextDue(): Promise<number | null> {
          const [row] = await database.read
            .select({ at: min(jobs.runAt) })
            .from(jobs)
            .where(isOpen);
          return row?.at ?? null;
        },

        /** Says that jobs are still being run. */
        async hold(ids: readonly string[]): Promise<void> {
          await database.write((tx) =>
            tx
              .update(jobs)
              .set({ runAt: now() + LEASE_MS })
              .where(and(inArray(jobs.id, [...ids]), eq(jobs.state, 'running'))),
          );
        },
      };
    },

    async openCount(): Promise<number> {
      const [row] = await database.read.select({ n: count() }).from(jobs).where(inArray(jobs.state, OPEN));
      return row?.n ?? 0;
    },
  };
}
export type Jobs = ReturnType<typeof jobRepository>;
