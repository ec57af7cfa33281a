import { instantOf, type Item } from '../model';
import { addDays, type DayName, daysBetween, mondayOf, mostlyHeard } from '../reading';

/** What one week did to what waits to be read, in minutes of text. */
export interface WeekFlow {
  /** Its Monday. */
  startsOn: DayName;
  cameIn: number;
  /** Finished, for the most part by eye. */
  read: number;
  /** Finished, for the most part by ear. */
  heard: number;
  /** Let go, or kept for reference: decided against reading it. */
  letGo: number;
}

/** So many weeks tell how a reader lives now; longer ago they lived otherwise. */
const MOST_WEEKS = 12;

/** True of what is still to be read. */
export function isWaiting(item: Item): boolean {
  const stage = item.choices.stage.value;
  return (stage === 'inbox' || stage === 'queue') && item.choices.finishedAt.value === null;
}

const minutesOf = (item: Item): number => item.capture.page?.minutes ?? 0;

/** Minutes of text that wait in Inbox and Queue. */
export function waitingMinutes(items: readonly Item[]): number {
  return items.filter(isWaiting).reduce((sum, item) => sum + minutesOf(item), 0);
}

/**
 * The whole weeks that a library has behind it, oldest first, at most twelve; the one that is under way is not whole. An
 * item that was let go so long ago that it is erased counts neither as come nor as gone.
 *
 * @param dayOf the reader's calendar day of an instant
 */
export function flowsOf(items: readonly Item[], today: DayName, dayOf: (instant: number) => DayName): WeekFlow[] {
  const savedAt = items.reduce((first, item) => Math.min(first, item.savedAt), Infinity);
  if (savedAt === Infinity) return [];
  const now = mondayOf(today);
  // The week in which the first was saved is whole only when it began with it.
  const began = mondayOf(dayOf(savedAt));
  const count = Math.min(MOST_WEEKS, Math.max(0, daysBetween(began, now) / 7));
  const flows = Array.from({ length: count }, (_, at): WeekFlow => ({
    startsOn: addDays(now, -7 * (count - at)),
    cameIn: 0,
    read: 0,
    heard: 0,
    letGo: 0,
  }));
  const byStart = new Map(flows.map((flow) => [flow.startsOn, flow]));
  const flowAt = (instant: number) => byStart.get(mondayOf(dayOf(instant)));
  for (const item of items) {
    const minutes = minutesOf(item);
    const came = flowAt(item.savedAt);
    if (came) came.cameIn += minutes;
    const { finishedAt, stage } = item.choices;
    const leftAt = finishedAt.value ?? (isWaiting(item) ? null : instantOf(stage.at));
    const left = leftAt === null ? undefined : flowAt(leftAt);
    if (left) left[finishedAt.value === null ? 'letGo' : mostlyHeard(item) ? 'heard' : 'read'] += minutes;
  }
  return flows;
}

/** What waited at the end of each week, oldest first. @param waiting minutes that wait now */
export function waitingByWeek(flows: readonly WeekFlow[], waiting: number): number[] {
  const ends: number[] = [];
  let at = waiting;
  for (const flow of [...flows].reverse()) {
    ends.unshift(Math.max(0, at));
    at -= flow.cameIn - outOf(flow);
  }
  return ends;
}

/** All that left in a week. */
export function outOf({ read, heard, letGo }: Pick<WeekFlow, 'read' | 'heard' | 'letGo'>): number {
  return read + heard + letGo;
}
