import type { Feed } from '@dorvel/core/model';
import { feedKind } from '@dorvel/core/records';
import { and, asc, eq, isNotNull, lte, min, ne } from 'drizzle-orm';
import { z } from 'zod';
import type { Database, Transaction } from '../db/open';
import { feeds } from '../db/schema';
import { readRecord, storable } from './stored';

/** What is remembered of a feed from one look to the next. */
export const FeedMemory = z.object({
  /** Where the feed is, which may not be what the reader gave. */
  address: z.string().nullable().default(null),
  etag: z.string().nullable().default(null),
  lastModified: z.string().nullable().default(null),
  /** Looks that failed, one after the other. */
  failures: z.number().int().default(0),
  /** What tells the entries seen so far, the latest first. */
  keys: z.array(z.string()).default([]),
});
export type FeedMemory = z.infer<typeof FeedMemory>;

export interface DueFeed {
  id: string;
  accountId: string;
}

/** While it is looked at it is not due; if the process ends meanwhile, it is due again after this. */
const LOOK_LIMIT_MS = 5 * 60 * 1000;
/** A site is asked for one feed at a time; the next one waits for so long. */
const SAME_SITE_MS = 3000;

/** What decides when a feed may be asked for; null for one that leads nowhere. */
function politenessOf(row: { memory: unknown; record: unknown }): { site: string; checkedAt: number } | null {
  const feed = readRecord(feedKind, row.record);
  const address = FeedMemory.safeParse(row.memory).data?.address ?? feed?.address ?? '';
  if (!feed || !URL.canParse(address)) return null;
  return { site: new URL(address).host, checkedAt: feed.state.checkedAt ?? -Infinity };
}

/**
 * The feeds of all accounts, by when they are to be looked at.
 *
 * @param againMs no feed is looked at again sooner than this, however often a reader asks
 */
export function feedSchedule(database: Database, now: () => number, againMs: number) {
  /** When a site was asked last, whoever follows what there. */
  const askedAt = new Map<string, number>();
  return {
    /** Takes up to `limit` feeds that are due, no two of them from one site. */
    async take(limit: number): Promise<DueFeed[]> {
      if (limit <= 0) return [];
      return database.write(async (tx) => {
        const due = await tx
          .select({ id: feeds.id, accountId: feeds.accountId, memory: feeds.memory, record: feeds.record })
          .from(feeds)
          .where(lte(feeds.dueAt, now()))
          .orderBy(asc(feeds.dueAt))
          .limit(limit * 8);
        const taken: DueFeed[] = [];
        for (const row of due) {
          const wait = (dueAt: number | null) =>
            tx
              .update(feeds)
              .set({ dueAt })
              .where(and(eq(feeds.accountId, row.accountId), eq(feeds.id, row.id)));
          const politeness = politenessOf(row);
          if (!politeness) {
            // It leads nowhere, and must not keep the others from being looked at.
            await wait(null);
            continue;
          }
          const { site, checkedAt } = politeness;
          const earliest = Math.max((askedAt.get(site) ?? -Infinity) + SAME_SITE_MS, checkedAt + againMs);
          if (earliest > now()) await wait(earliest);
          else if (taken.length < limit) {
            taken.push({ id: row.id, accountId: row.accountId });
            askedAt.set(site, now());
            await wait(now() + LOOK_LIMIT_MS);
          }
        }
        for (const [site, at] of askedAt) if (at + SAME_SITE_MS <= now()) askedAt.delete(site);
        return taken;
      });
    },

    async nextDue(): Promise<number | null> {
      const [row] = await database.read
        .select({ at: min(feeds.dueAt) })
        .from(feeds)
        .where(isNotNull(feeds.dueAt));
      return row?.at ?? null;
    },
  };
}

/** The feeds of one account, in a change of its library. */
export function feedWriter(tx: Transaction, accountId: string, sequence: number) {
  const mine = eq(feeds.accountId, accountId);
  return {
    async feed(id: string): Promise<{ feed: Feed; memory: FeedMemory; dueAt: number | null } | undefined> {
      const [row] = await tx
        .select({ record: feeds.record, memory: feeds.memory, dueAt: feeds.dueAt })
        .from(feeds)
        .where(and(mine, eq(feeds.id, id)));
      const feed = row && readRecord(feedKind, row.record);
      if (!feed) return undefined;
      const memory = FeedMemory.safeParse(row.memory).data ?? FeedMemory.parse({});
      return { feed, memory, dueAt: row.dueAt };
    },

    async otherFeeds(exceptId: string): Promise<Feed[]> {
      const rows = await tx
        .select({ record: feeds.record })
        .from(feeds)
        .where(and(mine, ne(feeds.id, exceptId)));
      return rows.flatMap((row) => readRecord(feedKind, row.record) ?? []);
    },

    /** @param dueAt when it is to be looked at again; null for never */
    async putFeed(given: Feed, memory: FeedMemory, dueAt: number | null): Promise<void> {
      const feed = storable(feedKind, given);
      const row = { accountId, id: feed.id, sequence, dueAt, memory, record: feed };
      await tx
        .insert(feeds)
        .values(row)
        .onConflictDoUpdate({ target: [feeds.accountId, feeds.id], set: row });
    },
  };
}
