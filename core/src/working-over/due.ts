import type { Highlight, Note, WorkedOver } from '../model';
import { isLive } from '../notes';
import { addDays, type DayName } from '../reading';

/**
 * After how many days a passage is laid before the reader: after it was marked, and again after each time that they put it
 * off. A day, a week, a month (common practice of spaced review).
 */
const WAITS = [1, 7, 30] as const;

/** A passage that waits for the reader's own words. */
export interface Unworked {
  highlight: Highlight;
  /** The day from which on it is laid before them. */
  dueOn: DayName;
}

/**
 * What was marked and not yet put in own words, that which is due longest first. A note on the passage, or on a note of it,
 * is own words.
 *
 * @param dayOf the reader's calendar day of an instant
 */
export function toWorkOver(
  highlights: readonly Highlight[],
  notes: readonly Note[],
  dayOf: (instant: number) => DayName,
): Unworked[] {
  const worded = new Set(notes.filter(isLive).flatMap(({ on }) => (on.kind === 'highlight' ? [on.id] : [])));
  return highlights
    .filter(({ id, choices }) => !choices.removed.value && !choices.workedOver.value.done && !worded.has(id))
    .map((highlight) => {
      const { times, lastOn } = highlight.choices.workedOver.value;
      return {
        highlight,
        dueOn: addDays(lastOn ?? dayOf(highlight.madeAt), WAITS[Math.min(times, WAITS.length - 1)] ?? 1),
      };
    })
    .sort((a, b) => (a.dueOn < b.dueOn ? -1 : a.dueOn > b.dueOn ? 1 : a.highlight.madeAt - b.highlight.madeAt));
}

/** What of it is due on a day. */
export function dueForWords(unworked: readonly Unworked[], today: DayName): Unworked[] {
  return unworked.filter(({ dueOn }) => dueOn <= today);
}

/** A passage that was put off: it comes again after a week, then each month. */
export function putOff({ times }: WorkedOver, today: DayName): WorkedOver {
  return { times: times + 1, lastOn: today, done: false };
}
