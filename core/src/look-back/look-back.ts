import type { Activity, Highlight, Item, Note } from '../model';
import { isDue } from '../queue';
import { type DayName, mostlyHeard } from '../reading';
import { isWithin, type Period } from './period';

/** Why something is among the best of a period. */
export type BestReason =
  | { kind: 'chosen' }
  | { kind: 'highlights'; count: number }
  | { kind: 'notes'; count: number }
  | { kind: 'days'; count: number }
  | { kind: 'finished' };

export interface Best {
  item: Item;
  /** The weightiest first. */
  reasons: BestReason[];
}

/** What happened in a period. */
export interface LookBack {
  cameIn: Item[];
  /** Finished, for the most part by eye. */
  read: Item[];
  /** Finished, for the most part by ear. */
  heard: Item[];
  minutesByEyes: number;
  minutesByEars: number;
  /** The best of it, the best first. */
  best: Best[];
  /** What was marked, in the order in which it was. */
  highlights: Highlight[];
  /** What was to come back within it, and was not read. */
  promised: Item[];
  /** What the reader spent time with, read to the end or not. */
  touched: Item[];
}

/** All that a look-back is made from. */
export interface Records {
  items: readonly Item[];
  activities: readonly Activity[];
  highlights: readonly Highlight[];
  notes: readonly Note[];
}

const MOST_BEST = 5;
/** What is below this was not good, only there. */
const LEAST_WORTH = 3;
const WORTH = { chosen: 100, highlight: 2, note: 2, day: 1.5, finished: 1.5 } as const;
/** So many highlights and days count; a text that is marked all over is not ten times as good. */
const COUNTED = { highlights: 5, notes: 3, days: 4 } as const;

/**
 * What came of a week or a month.
 *
 * @param today a day that is not over is looked back on as far as it goes
 * @param dayOf the reader's calendar day of an instant
 */
export function lookBackOn(
  period: Period,
  { items, activities, highlights, notes }: Records,
  today: DayName,
  dayOf: (instant: number) => DayName,
): LookBack {
  const isIn = (instant: number | null) => instant !== null && isWithin(period, dayOf(instant));
  const here = items.filter(({ capture }) => capture.duplicateOf === null);
  const sittings = activities.filter(({ day }) => isWithin(period, day));
  const marked = highlights.filter(({ madeAt }) => isIn(madeAt)).sort((a, b) => a.madeAt - b.madeAt);
  const written = notes.filter(({ madeAt }) => isIn(madeAt));
  const finished = here.filter(({ choices }) => isIn(choices.finishedAt.value));
  const minutes = (by: Activity['by']) =>
    sittings.reduce((sum, sitting) => sum + (sitting.by === by ? sitting.seconds / 60 : 0), 0);
  const daysIn = daysByItem(sittings);
  const lastIn = daysByItem(activities);
  return {
    cameIn: here.filter(({ savedAt }) => isIn(savedAt)),
    read: finished.filter((item) => !mostlyHeard(item)),
    heard: finished.filter(mostlyHeard),
    minutesByEyes: minutes('eyes'),
    minutesByEars: minutes('ears'),
    highlights: marked,
    promised: here.filter((item) => {
      const day = item.choices.comeBackOn.value;
      const last = [...(lastIn.get(item.id) ?? [])].sort().at(-1) ?? null;
      return day !== null && isWithin(period, day) && isDue(item, today, last);
    }),
    touched: here.filter(({ id, choices }) => daysIn.has(id) || isIn(choices.finishedAt.value)),
    best: here
      .map((item) => {
        const reasons = reasonsFor({
          chosen: isIn(item.choices.best.value),
          highlights: marked.filter(({ itemId }) => itemId === item.id).length,
          notes: written.filter(({ itemId }) => itemId === item.id).length,
          days: daysIn.get(item.id)?.size ?? 0,
          finished: isIn(item.choices.finishedAt.value),
        });
        return { item, reasons, worth: reasons.reduce((sum, reason) => sum + worthOf(reason), 0) };
      })
      .filter(({ worth }) => worth >= LEAST_WORTH)
      .sort((a, b) => b.worth - a.worth || b.item.savedAt - a.item.savedAt)
      .filter(({ worth }, at) => at < MOST_BEST || worth >= WORTH.chosen)
      .map(({ item, reasons }) => ({ item, reasons })),
  };
}

function daysByItem(sittings: readonly Activity[]): Map<string, Set<DayName>> {
  const days = new Map<string, Set<DayName>>();
  for (const { itemId, day } of sittings) days.set(itemId, (days.get(itemId) ?? new Set()).add(day));
  return days;
}

function reasonsFor(counted: {
  chosen: boolean;
  highlights: number;
  notes: number;
  days: number;
  finished: boolean;
}): BestReason[] {
  const reasons: BestReason[] = [];
  if (counted.chosen) reasons.push({ kind: 'chosen' });
  if (counted.highlights > 0) reasons.push({ kind: 'highlights', count: counted.highlights });
  if (counted.notes > 0) reasons.push({ kind: 'notes', count: counted.notes });
  // Opened on one day is read; opened again is come back to.
  if (counted.days > 1) reasons.push({ kind: 'days', count: counted.days });
  if (counted.finished) reasons.push({ kind: 'finished' });
  return reasons.sort((a, b) => worthOf(b) - worthOf(a));
}

function worthOf(reason: BestReason): number {
  switch (reason.kind) {
    case 'chosen':
      return WORTH.chosen;
    case 'highlights':
      return WORTH.highlight * Math.min(COUNTED.highlights, reason.count);
    case 'notes':
      return WORTH.note * Math.min(COUNTED.notes, reason.count);
    case 'days':
      return WORTH.day * (Math.min(COUNTED.days, reason.count) - 1);
    case 'finished':
      return WORTH.finished;
  }
}
