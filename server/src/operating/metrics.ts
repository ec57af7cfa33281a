import { and, count, eq, inArray, isNotNull, lte, min, ne, sql, sum } from 'drizzle-orm';
import type { RequestHandler } from 'express';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import type { Database } from '../db/open';
import { accounts, copies, feeds, items, jobs, pictures } from '../db/schema';

/** What nobody fetched within this was not waited for: their devices are asleep. */
const LAG_LIMIT_MS = 5 * 60_000;

/**
 * What a server can be watched by, in numbers: Prometheus' text format 0.0.4. No address, title, mail address or account
 * is in it.
 */
export function serverMetrics(database: Database, now: () => number) {
  const registry = new Registry();
  const registers = [registry];
  collectDefaultMetrics({ register: registry });
  const { read } = database;
  /** Asked when the numbers are: of few they are sums of the whole library, which takes some milliseconds. */
  const gauge = (name: string, help: string, ask: () => Promise<number | null | undefined>) =>
    new Gauge({
      ...{ name: `dorvel_${name}`, help, registers },
      async collect() {
        this.set((await ask()) ?? 0);
      },
    });
  const rows = async (table: typeof accounts | typeof items | typeof copies) =>
    (await read.select({ n: count() }).from(table))[0]?.n;
  gauge('accounts', 'Accounts', () => rows(accounts));
  gauge('items', 'Items of all accounts', () => rows(items));
  gauge('copies', 'Copies of all accounts', () => rows(copies));
  gauge('picture_bytes', 'Bytes of pictures, counted for each account that has them', async () =>
    Number((await read.select({ bytes: sum(pictures.bytes) }).from(pictures))[0]?.bytes ?? 0),
  );
  gauge('database_bytes', 'Bytes of the database', async () => {
    const [size] = await read.all<{ bytes: number }>(
      sql`select page_count * page_size as bytes from pragma_page_count(), pragma_page_size()`,
    );
    return size?.bytes;
  });
  const areOpen = inArray(jobs.state, ['waiting', 'running']);
  const isOpen = and(areOpen, ne(jobs.lane, 'looking'));
  gauge('captures_open', 'Captures that wait or are under way', async () => {
    return (await read.select({ n: count() }).from(jobs).where(isOpen))[0]?.n;
  });
  gauge('pictures_to_look_at', 'Items whose pictures wait to be looked at, which takes seconds for each', async () => {
    return (
      await read
        .select({ n: count() })
        .from(jobs)
        .where(and(areOpen, eq(jobs.lane, 'looking')))
    )[0]?.n;
  });
  const overdue = (at: number | null | undefined) => Math.max(0, now() - (at ?? now())) / 1000;
  gauge('capture_overdue_seconds', 'How long the capture that has waited longest has been due', async () => {
    const isDue = and(eq(jobs.state, 'waiting'), ne(jobs.lane, 'looking'), lte(jobs.runAt, now()));
    return overdue(
      (
        await read
          .select({ at: min(jobs.runAt) })
          .from(jobs)
          .where(isDue)
      )[0]?.at,
    );
  });
  gauge('feed_overdue_seconds', 'How long the feed that has waited longest has been due', async () =>
    overdue(
      (
        await read
          .select({ at: min(feeds.dueAt) })
          .from(feeds)
          .where(isNotNull(feeds.dueAt))
      )[0]?.at,
    ),
  );

  const captured = new Counter({
    ...{ name: 'dorvel_captures_total', help: 'Captures that came to an end, by their outcome', registers },
    labelNames: ['outcome'],
  });
  const captureSeconds = new Histogram({
    ...{ name: 'dorvel_capture_seconds', help: 'How long one try of a capture took', registers },
    buckets: [0.1, 0.3, 1, 3, 10, 30, 60],
  });
  const requests = new Histogram({
    ...{ name: 'dorvel_request_seconds', help: 'How long requests took, by route', registers },
    labelNames: ['method', 'route', 'status'],
    buckets: [0.005, 0.02, 0.1, 0.3, 1, 3, 10],
  });
  const lag = new Histogram({
    ...{ name: 'dorvel_sync_lag_seconds', help: 'From a change until the first device fetched it', registers },
    buckets: [0.1, 0.3, 1, 3, 10, 60, 300],
  });
  const changedAt = new Map<string, number>();

  return {
    contentType: registry.contentType,
    text: () => registry.metrics(),

    /** @param outcome the code of core/model's outcomes */
    captured(outcome: string, tookMs: number): void {
      captured.inc({ outcome });
      captureSeconds.observe(tookMs / 1000);
    },

    /** Something has changed in an account's library. */
    changed(accountId: string): void {
      if (!changedAt.has(accountId)) changedAt.set(accountId, now());
    },

    /** A device of the account has fetched what changed. */
    fetched(accountId: string): void {
      const at = changedAt.get(accountId);
      changedAt.delete(accountId);
      if (at !== undefined && now() - at < LAG_LIMIT_MS) lag.observe((now() - at) / 1000);
    },

    /** Takes the time of each request, by the route that took it: what stands in an address is in no number. */
    timing: ((request, response, next) => {
      const done = requests.startTimer();
      response.on('close', () => {
        const path = (request.route as { path?: unknown } | undefined)?.path;
        const route = typeof path === 'string' ? `${request.baseUrl}${path}` : 'none';
        // One that stays open for as long as a device listens took no time.
        if (route !== '/api/sync/events') done({ method: request.method, route, status: response.statusCode });
      });
      next();
    }) satisfies RequestHandler,
  };
}
export type Metrics = ReturnType<typeof serverMetrics>;
