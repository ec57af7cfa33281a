import { and, eq, sql } from 'drizzle-orm';
import type { Database } from '../db/open';
import { leaders } from '../db/schema';
import type { Row } from './runner';

/** Who leads and says nothing for so long leads no more. */
const LEASE_MS = 15_000;
/** Asked again within this, what was answered last holds. */
const SURE_MS = 5000;
const LOOK_AGAIN_MS = 5000;

/** Of the processes that share a database: one does what must not be done twice. */
export interface Leader {
  /** Whether this process is the one; it becomes so when nobody is. */
  leads(): Promise<boolean>;
  /** Lets another be the one at once. */
  stepDown(): Promise<void>;
}

/** @param holder the name of this process */
export function leaderOf(database: Database, holder: string, now: () => number): Leader {
  if (!database.isShared) return { leads: () => Promise.resolve(true), stepDown: () => Promise.resolve() };
  let last: { at: number; leads: boolean } = { at: -Infinity, leads: false };
  return {
    async leads() {
      if (now() - last.at < SURE_MS) return last.leads;
      const [row] = await database.write((tx) =>
        tx
          .insert(leaders)
          .values({ id: 1, holder, until: now() + LEASE_MS })
          .onConflictDoUpdate({
            target: leaders.id,
            set: { holder, until: now() + LEASE_MS },
            setWhere: sql`${leaders.holder} = ${holder} or ${leaders.until} < ${now()}`,
          })
          .returning({ holder: leaders.holder }),
      );
      last = { at: now(), leads: row?.holder === holder };
      return last.leads;
    },
    async stepDown() {
      last = { at: -Infinity, leads: false };
      await database.write((tx) => tx.delete(leaders).where(and(eq(leaders.id, 1), eq(leaders.holder, holder))));
    },
  };
}

/**
 * A row of jobs that only the leader takes from.
 *
 * @param begin is called each time that this process becomes the leader, before it takes anything
 */
export function onlyLed<Job>(
  row: Row<Job>,
  leader: Leader,
  now: () => number,
  begin: () => Promise<void> = () => Promise.resolve(),
): Row<Job> {
  let led = false;
  return {
    async take(limit) {
      if (!(await leader.leads())) {
        led = false;
        return [];
      }
      if (!led) await begin();
      led = true;
      return row.take(limit);
    },
    nextDue: async () => ((await leader.leads()) ? row.nextDue() : now() + LOOK_AGAIN_MS),
    ...(row.hold && { hold: row.hold.bind(row) }),
  };
}
