import { GivenText } from '@dorvel/core/model';
import { and, asc, count, eq, inArray, lte, min } from 'drizzle-orm';
import type { Database } from './open';
import { jobs } from './schema';

export interface Job {
  id: string;
  accountId: string;
  itemId: string;
  /** What the reader gave by hand, to be taken instead of the page. */
  given: GivenText | null;
  /** How often it has been started, this time included. */
  attempts: number;
}

/** The row of captures to be done. A row survives whatever happens to the process. */
export function jobRepository(database: Database, now: () => number) {
  return {
    /** Whatever ran when the process ended is to be run again. */
    async recover(): Promise<number> {
      const rows = await database.write((tx) =>
        tx
          .update(jobs)
          .set({ state: 'waiting', runAt: now(), updatedAt: now() })
          .where(eq(jobs.state, 'running'))
          .returning({ id: jobs.id }),
      );
      return rows.length;
    },

    /** Takes up to `limit` jobs that are due and marks them as running. */
    async take(limit: number): Promise<Job[]> {
      if (limit <= 0) return [];
      return database.write(async (tx) => {
        const due = await tx
          .select({
            id: jobs.id,
            accountId: jobs.accountId,
            itemId: jobs.itemId,
            given: jobs.given,
            attempts: jobs.attempts,
          })
          .from(jobs)
          .where(and(eq(jobs.state, 'waiting'), lte(jobs.runAt, now())))
          .orderBy(asc(jobs.runAt), asc(jobs.id))
          .limit(limit);
        for (const job of due) {
          job.attempts += 1;
          await tx
            .update(jobs)
            .set({ state: 'running', attempts: job.attempts, updatedAt: now() })
            .where(eq(jobs.id, job.id));
        }
        return due.map((job) => ({ ...job, given: job.given === null ? null : GivenText.parse(job.given) }));
      });
    },

    /** When the next waiting job is due; null when none waits. */
    async nextDue(): Promise<number | null> {
      const [row] = await database.read
        .select({ at: min(jobs.runAt) })
        .from(jobs)
        .where(eq(jobs.state, 'waiting'));
      return row?.at ?? null;
    },

    async openCount(): Promise<number> {
      const [row] = await database.read
        .select({ n: count() })
        .from(jobs)
        .where(inArray(jobs.state, ['waiting', 'running']));
      return row?.n ?? 0;
    },
  };
}
export type Jobs = ReturnType<typeof jobRepository>;
