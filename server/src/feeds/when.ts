/** What decides when a feed is looked at again. Times are in milliseconds since 1970. */
export interface Look {
  now: number;
  /** Dates of the latest entries, in any order. */
  entryDates: readonly number[];
  /** The feed's own wish (`ttl`, syndication module), in minutes. */
  restMinutes: number | null;
  /** The site's (Cache-Control: max-age), in seconds. */
  maxAgeSeconds: number | null;
  /** Looks that failed, one after the other, this one counted; 0 when it went well. */
  failures: number;
  /** The site's wish after a failure (Retry-After). */
  retryAfterMs: number | null;
  /** No feed is looked at more often than this. */
  shortestMs: number;
}

const HOUR_MS = 60 * 60 * 1000;
const DAY_MS = 24 * HOUR_MS;

/**
 * When a feed is to be looked at again: twice in the time that usually lies between two of its entries, within limits,
 * and never before it or its site wishes. After failures it is left alone for twice as long each time, up to a day.
 * (Common practice; the wishes are those of RSS 2.0, RSS 1.0's syndication module and RFC 9110/9111.)
 */
export function nextPollAt(look: Look): number {
  const { now, shortestMs, failures, retryAfterMs } = look;
  if (failures > 0) {
    const wait = Math.min(DAY_MS, shortestMs * 2 ** Math.min(20, failures - 1));
    return now + Math.max(wait, retryAfterMs ?? 0);
  }
  const usual = Math.min(DAY_MS, Math.max(shortestMs, usualGap(look.entryDates, now) / 2));
  const wished = Math.min(
    7 * DAY_MS,
    Math.max(atLeast0(look.restMinutes) * 60_000, Math.min(DAY_MS, atLeast0(look.maxAgeSeconds) * 1000)),
  );
  return now + Math.max(usual, wished);
}

/** What is no number, or none that can be waited for, is no wish. */
function atLeast0(wish: number | null): number {
  return wish !== null && Number.isFinite(wish) ? Math.max(0, wish) : 0;
}

/** The median time between entries; at least as long as nothing has come by now. */
function usualGap(dates: readonly number[], now: number): number {
  const latest = [...dates]
    .filter((date) => date <= now)
    .sort((a, b) => b - a)
    .slice(0, 12);
  const [first] = latest;
  if (first === undefined) return DAY_MS / 2;
  const gaps = latest.slice(1).map((date, at) => (latest[at] ?? date) - date);
  const median = gaps.sort((a, b) => a - b)[Math.floor(gaps.length / 2)] ?? DAY_MS / 2;
  return Math.max(median, (now - first) / 4);
}
