import { type Activity, type Item, spansWithin } from '../model';
import { addDays, type DayName, mondayOf } from './days';

/** What happened in one week. */
export interface Week {
  /** Its Monday. */
  startsOn: DayName;
  /** Items saved. */
  cameIn: number;
  /** Items finished, most of them by eye. */
  read: number;
  /** Items finished, most of them by ear. */
  heard: number;
  minutesByEyes: number;
  minutesByEars: number;
}

/**
 * What came in, what was finished and the time it took, week by week, oldest first; the last is the week of `today`.
 *
 * @param dayOf the reader's calendar day of an instant
 */
export function weekByWeek(
  items: readonly Item[],
  activities: readonly Activity[],
  today: DayName,
  count: number,
  dayOf: (instant: number) => DayName,
): Week[] {
  const last = mondayOf(today);
  const weeks = Array.from({ length: count }, (_, index): Week => ({
    startsOn: addDays(last, -7 * (count - 1 - index)),
    cameIn: 0,
    read: 0,
    heard: 0,
    minutesByEyes: 0,
    minutesByEars: 0,
  }));
  const byStart = new Map(weeks.map((week) => [week.startsOn, week]));
  const weekOf = (day: DayName) => byStart.get(mondayOf(day));
  for (const item of items) {
    const saved = weekOf(dayOf(item.savedAt));
    if (saved) saved.cameIn += 1;
    const finishedAt = item.choices.finishedAt.value;
    const finished = finishedAt === null ? undefined : weekOf(dayOf(finishedAt));
    if (finished) finished[mostlyHeard(item) ? 'heard' : 'read'] += 1;
  }
  for (const { day, by, seconds } of activities) {
    const week = weekOf(day);
    if (week) week[by === 'eyes' ? 'minutesByEyes' : 'minutesByEars'] += seconds / 60;
  }
  return weeks;
}

/** True when more of an item went by ear than by eye. */
export function mostlyHeard(item: Item): boolean {
  const heard = spansWithin(item.progress.heard, 1).reduce((sum, { from, to }) => sum + to - from, 0);
  return heard > item.progress.furthest / 2;
}
