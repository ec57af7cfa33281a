import { GivenText } from '@dorvel/core/model';
import { and, asc, count, eq, inArray, lte, min, or, sql } from 'drizzle-orm';
import type { Database } from '../db/open';
import { items, jobs } from '../db/schema';

/**
 * Where a text is taken apart. Most are quick; those that are large or turn out to be slow go to the long lane, one at a
 * time, so that they hold up none but their like.
 */
export type Lane = 'quick' | 'long';

/** Pictures that have arrived wait in a lane of their own to be looked at. */
export type JobLane = Lane | 'looking';

export interface Job<In extends JobLane = Lane> {
  id: string;
  accountId: string;
  itemId: string;
  lane: In;
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
export const LEASE_MS = 60 * 1000;

const OPEN = ['waiting', 'running'] as const;

/** Of one site no more pages are fetched at once: it may be small, and slow; others go on meanwhile. */
export const MOST_OF_A_SITE = 3;
/** Of those that are due, so many are looked at for some of other sites. */
const LOOKED_AT = 400;

/**
 * The row of captures to be done. A row survives whatever happens to the process.
 *
 * @param holder the name of this process, of those that share the database
 */
export function jobRepository(database: Database, now: () => number, holder = 'server') {
  return {
    /**
     * Whatever ran when the process ended is to be run again; it may have been what ended it. Where others may be running
     * things, their leases tell: see take.
     */
    async recover(): Promise<number> {
      if (database.isShared) return 0;
      const rows = await database.write((tx) =>
        tx
          .update(jobs)
          .set({ state: 'waiting', holder: null, crashes: sql`${jobs.crashes} + 1`, runAt: now(), updatedAt: now() })
          .where(eq(jobs.state, 'running'))
          .returning({ id: jobs.id }),
      );
      return rows.length;
    },

    /** What is still running when the server is ended in good order did not end it. */
    async release(): Promise<void> {
      await database.write((tx) =>
        tx
          .update(jobs)
          .set({ state: 'waiting', holder: null, runAt: now() })
          .where(and(eq(jobs.state, 'running'), eq(jobs.holder, holder))),
      );
    },

    /** The jobs of a lane, for a runner. */
    lane<In extends JobLane>(lane: In) {
      const isOpen = and(eq(jobs.lane, lane), inArray(jobs.state, OPEN));
      return {
        /** Takes up to `limit` jobs that are due, not many of one site, and marks them as running. */
        async take(limit: number): Promise<Job<In>[]> {
          if (limit <= 0) return [];
          return database.write(async (tx) => {
            const isRunning = sql`${jobs.state} = 'running'`;
            const near = tx
              .select({
                id: jobs.id,
                isRunning: sql`${isRunning}`.as('is_running'),
                runAt: jobs.runAt,
                // The address up to its host; what is given is of no site.
                site: sql`case when ${jobs.given} is null and ${jobs.lane} <> 'looking'
                  then substr(${items.addressKey}, 1, 8 + instr(substr(${items.addressKey}, 9) || '/', '/')) end`.as(
                  'site',
                ),
              })
              .from(jobs)
              .leftJoin(items, and(eq(items.accountId, jobs.accountId), eq(items.id, jobs.itemId)))
              .where(and(isOpen, or(isRunning, lte(jobs.runAt, now()))))
              .orderBy(sql`${isRunning} desc`, asc(jobs.runAt), asc(jobs.id))
              .limit(LOOKED_AT)
              .as('near');
            const placed = tx
              .select({
                id: near.id,
                nth: sql<number>`row_number() over (partition by coalesce(${near.site}, ${near.id})
                  order by ${near.isRunning} desc, ${near.runAt}, ${near.id})`.as('nth'),
              })
              .from(near)
              .as('placed');
            const due = await tx
              .select({
                id: jobs.id,
                accountId: jobs.accountId,
                itemId: jobs.itemId,
                lane: jobs.lane,
                given: jobs.given,
                attempts: jobs.attempts,
                crashes: jobs.crashes,
                holder: jobs.holder,
                state: jobs.state,
              })
              .from(jobs)
              .innerJoin(placed, eq(placed.id, jobs.id))
              .where(and(lte(jobs.runAt, now()), lte(placed.nth, MOST_OF_A_SITE)))
              .orderBy(asc(jobs.runAt), asc(jobs.id))
              .limit(limit);
            for (const job of due) {
              job.attempts += 1;
              // Another process had it, and has not said for long that it still has: it ended, perhaps by this.
              if (job.state === 'running' && job.holder !== null && job.holder !== holder) job.crashes += 1;
              const { attempts, crashes } = job;
              await tx
                .update(jobs)
                .set({ state: 'running', holder, attempts, crashes, runAt: now() + LEASE_MS, updatedAt: now() })
                .where(eq(jobs.id, job.id));
            }
            return due.map(({ holder: _holder, state: _state, ...job }) => ({
              ...job,
              lane,
              given: GivenText.safeParse(job.given).data ?? null,
            }));
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
              .where(and(inArray(jobs.id, [...ids]), eq(jobs.state, 'running'), eq(jobs.holder, holder))),
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
