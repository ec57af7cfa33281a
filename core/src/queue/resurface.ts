import { type DayName, daysBetween } from '../reading/days';

/** What the score knows of an item that waits in the Queue. */
export interface ResurfaceCandidate {
  id: string;
  savedOn: DayName;
  /** The day on which it came into the Queue. */
  queuedOn: DayName;
  /** The fraction passed, 0 to 1. */
  passed: number;
  minutesLeft: number;
  /** The day for which it is promised, or was; null for none. */
  promisedFor: DayName | null;
  shown: { times: number; lastOn: DayName | null };
  passedOver: { times: number; lastOn: DayName | null };
  /** How near it is to the nearest of what was lately finished, 0 to 1. */
  nearness: number;
  /** How many of what was lately finished it is near to. */
  nearTo: number;
}

/** Why an item was lifted, the weightiest reason first. */
export type Reason =
  | { kind: 'saved'; days: number }
  | { kind: 'near'; count: number }
  | { kind: 'begun'; minutesLeft: number }
  | { kind: 'promise'; day: DayName }
  | { kind: 'unseen'; days: number };

export interface Lifted {
  id: string;
  score: number;
  reasons: Reason[];
}

/** How many are lifted on one day: as many as can be looked at without deciding to. */
export const RESURFACED_A_DAY = 3;

/**
 * The weights of the score, in days of waiting that each is worth at most. They are ours: no published source
 * weighs them. bench/resurface.mjs shows what they do in a year.
 */
const WEIGHT = {
  /** What was saved long ago is buried deepest. Half of it after 30 days. */
  age: 10,
  /** What was begun is known to be wanted, and the nearer its end the less it asks. */
  begun: 8,
  /** What touches things lately finished fits what the reader is thinking about. */
  near: 14,
  /** A promise whose day went by without being kept. */
  promise: 8,
  /** What was passed over is wanted less; half of it after twice. */
  passedOver: 12,
  /** What was shown and neither opened nor passed over, a little less; half of it after three times. */
  shown: 4,
} as const;
/**
 * What had no turn and has waited so long need not be better than others any more: one item, and as many as there are
 * places. Chosen with some seeds of bench/resurface.mjs, judged with others.
 */
const OVERDUE_DAYS = 12;
const LONG_OVERDUE_DAYS = 26;
/** While it is this new in the Queue the reader remembers it by themselves: being shown then was no turn. */
const FRESH_DAYS = 7;
const AGE_HALF_DAYS = 30;
const PASSED_OVER_HALF = 2;
const SHOWN_HALF = 3;
/** The nearness of two texts that plainly speak of the same things. */
const FULLY_NEAR = 0.5;

const rising = (amount: number, half: number) => 1 - 0.5 ** (amount / half);

/**
 * The resurfacing score:
 *
 *     score = w + 10·(1 − 2^(−a/30)) + [begun]·(4 + 4p) + 14·min(1, n/0.4) + [promise missed]·8
 *               − 12·(1 − 2^(−o/2)) − 4·(1 − 2^(−s/3))
 *
 *     w  days since it was last shown, or since it was queued     a  days since it was saved
 *     p  fraction passed     n  nearness to what was lately finished
 *     o  times passed over   s  times shown
 *
 * Only w has no bound. All else together lies between −16 and +40, so what has waited 56 days longer than another
 * goes before it whatever else is said of the two. That is what makes `longestWait` hold: nothing sinks for good.
 *
 * @returns days; more is sooner
 */
export function resurfacingScore(item: ResurfaceCandidate, today: DayName): number {
  return components(item, today).reduce((sum, { worth }) => sum + worth, 0);
}

/** How much the bounded parts of two items' scores can differ. */
const SPREAD = WEIGHT.age + WEIGHT.begun + WEIGHT.near + WEIGHT.promise + WEIGHT.passedOver + WEIGHT.shown;

/**
 * The most days on which the reader can look at Now without an item of the Queue being lifted, when the Queue
 * never holds more than `size` items that may be lifted.
 *
 * An item that has waited SPREAD days stands in a line in which only those that have waited longer are before it; each of
 * those is shown once, three a day, and then stands behind it.
 */
export function longestWait(size: number): number {
  return SPREAD + 1 + Math.ceil(Math.max(0, size - 1) / RESURFACED_A_DAY);
}

function components(item: ResurfaceCandidate, today: DayName): { worth: number; reason?: Reason }[] {
  const savedDays = Math.max(0, daysBetween(item.savedOn, today));
  const unseenDays = Math.max(0, daysBetween(item.shown.lastOn ?? item.queuedOn, today));
  const begun = item.passed > 0;
  const missed = item.promisedFor !== null && item.promisedFor < today;
  return [
    {
      worth: unseenDays,
      ...(item.shown.lastOn === null ? {} : { reason: { kind: 'unseen', days: unseenDays } }),
    },
    {
      worth: WEIGHT.age * rising(savedDays, AGE_HALF_DAYS),
      reason: { kind: 'saved', days: savedDays },
    },
    begun
      ? {
          worth: (WEIGHT.begun / 2) * (1 + item.passed),
          reason: { kind: 'begun', minutesLeft: item.minutesLeft },
        }
      : { worth: 0 },
    {
      worth: WEIGHT.near * Math.min(1, item.nearness / FULLY_NEAR),
      ...(item.nearTo > 0 ? { reason: { kind: 'near', count: item.nearTo } } : {}),
    },
    missed && item.promisedFor !== null
      ? { worth: WEIGHT.promise, reason: { kind: 'promise', day: item.promisedFor } }
      : { worth: 0 },
    { worth: -WEIGHT.passedOver * rising(item.passedOver.times, PASSED_OVER_HALF) },
    { worth: -WEIGHT.shown * rising(item.shown.times, SHOWN_HALF) },
  ];
}

/**
 * What is lifted today: what was already, and has not been passed over since, filled up by score to three for the
 * day. What was passed over is not replaced the same day, or one press after another would go through the whole Queue.
 * What is promised for a later day waits for that day.
 *
 * @param waiting the unread and part-read items of the Queue that are not before the reader's eyes anyway
 */
export function resurfaceToday(waiting: readonly ResurfaceCandidate[], today: DayName): Lifted[] {
  const shownToday = waiting.filter(({ shown }) => shown.lastOn === today);
  const stillShown = shownToday.filter(({ passedOver }) => passedOver.lastOn !== today);
  const fresh = waiting
    .filter(({ shown, promisedFor }) => shown.lastOn !== today && (promisedFor === null || promisedFor < today))
    .map((item) => ({ item, score: resurfacingScore(item, today) }))
    .sort((a, b) => b.score - a.score || (a.item.id < b.item.id ? -1 : 1));
  const room = Math.max(0, RESURFACED_A_DAY - shownToday.length);
  return [
    ...stillShown.map((item) => ({ item, score: resurfacingScore(item, today) })),
    ...withOverdue(fresh, room, today),
  ].map(({ item, score }) => ({ id: item.id, score, reasons: reasonsOf(item, today) }));
}

interface Scored {
  item: ResurfaceCandidate;
  score: number;
}

/**
 * The best by score; but what had no turn and has waited for long has one of the places, and all of them when it has waited
 * for very long. What was shown stands in the same line once the score alone would have lifted it: by how long each is
 * overdue. What comes into the Queue later than `LONG_OVERDUE_DAYS` before an item is overdue never goes before it, so that
 * `longestWait` holds.
 */
function withOverdue(scored: readonly Scored[], room: number, today: DayName): Scored[] {
  const first = scored
    .map((each) => {
      const { shown, queuedOn } = each.item;
      const hadNone = shown.lastOn === null || daysBetween(queuedOn, shown.lastOn) < FRESH_DAYS;
      const waited = daysBetween(hadNone ? queuedOn : (shown.lastOn ?? queuedOn), today);
      return { each, hadNone, waited, overdue: waited - (hadNone ? LONG_OVERDUE_DAYS : SPREAD) };
    })
    .filter(({ hadNone, waited, overdue }) => overdue >= 0 || (hadNone && waited >= OVERDUE_DAYS))
    .sort((a, b) => b.overdue - a.overdue || b.each.score - a.each.score || (a.each.item.id < b.each.item.id ? -1 : 1))
    .filter(({ overdue }, n) => n === 0 || overdue >= 0)
    .slice(0, room)
    .map(({ each }) => each);
  return [...scored.filter((each) => !first.includes(each)).slice(0, room - first.length), ...first];
}

function reasonsOf(item: ResurfaceCandidate, today: DayName): Reason[] {
  return components(item, today)
    .filter((part): part is { worth: number; reason: Reason } => part.reason !== undefined && part.worth >= 2)
    .sort((a, b) => b.worth - a.worth)
    .map(({ reason }) => reason);
}
