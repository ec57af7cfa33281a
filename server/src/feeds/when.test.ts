import fc from 'fast-check';
import { type Look, nextPollAt } from './when';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const NOW = Date.UTC(2026, 10, 25);
const look = (changes: Partial<Look>): Look => ({
  now: NOW,
  entryDates: [],
  restMinutes: null,
  maxAgeSeconds: null,
  failures: 0,
  retryAfterMs: null,
  shortestMs: 30 * MINUTE,
  ...changes,
});
const wait = (changes: Partial<Look>) => nextPollAt(look(changes)) - NOW;

// Common practice; the wishes of a feed and its site are those of RSS 2.0 (`ttl`), RFC 9111 and RFC 9110.
describe('when a feed is looked at again', () => {
  it.each([
    ['one entry every four hours', { entryDates: [0, 4, 8, 12].map((h) => NOW - h * HOUR) }, 2 * HOUR],
    ['one every minute', { entryDates: [0, 1, 2, 3].map((m) => NOW - m * MINUTE) }, 30 * MINUTE],
    ['one a week', { entryDates: [0, 7, 14].map((d) => NOW - d * DAY) }, DAY],
    ['frequent once, and silent for ten days', { entryDates: [240, 241, 242].map((h) => NOW - h * HOUR) }, DAY],
    ['no dates at all', {}, 6 * HOUR],
    ['a date in the future', { entryDates: [NOW + DAY] }, 6 * HOUR],
    ['a wish of twelve hours', { restMinutes: 720 }, 12 * HOUR],
    ['a wish of a year', { restMinutes: 525_600 }, 7 * DAY],
    ['a site that says it stays for eight hours', { maxAgeSeconds: 8 * 3600 }, 8 * HOUR],
    ['a first failure', { failures: 1 }, 30 * MINUTE],
    ['a fourth', { failures: 4 }, 4 * HOUR],
    ['a hundredth', { failures: 100 }, DAY],
    ['a site that asks for two days', { failures: 1, retryAfterMs: 2 * DAY }, 2 * DAY],
  ] satisfies [string, Partial<Look>, number][])('%s', (_what, changes, expected) => {
    expect(wait(changes)).toBe(expected);
  });

  it('is never at once, and never after more than a week', () => {
    const instant = fc.integer({ min: 0, max: 2 * NOW });
    fc.assert(
      fc.property(
        fc.array(instant, { maxLength: 30 }),
        fc.option(fc.integer({ min: 0, max: 10_000_000 })),
        fc.option(fc.integer({ min: 0, max: 1e9 })),
        fc.nat(200),
        (entryDates, restMinutes, maxAgeSeconds, failures) => {
          const ms = wait({ entryDates, restMinutes, maxAgeSeconds, failures });
          expect(ms).toBeGreaterThanOrEqual(30 * MINUTE);
          expect(ms).toBeLessThanOrEqual(7 * DAY);
        },
      ),
    );
  });
});
