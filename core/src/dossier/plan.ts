import type { Item } from '../model';
import { addDays, type DayName, minutesLeft } from '../reading';

/** On which day an item of a dossier is to be read. */
export interface PlannedDay {
  item: Item;
  day: DayName;
}

/**
 * Spreads what is left to be read of a dossier over days, in its order: each day as much as fits, and at least one item. What is
 * finished, or has no text, is left out.
 *
 * @param first the first day
 * @param minutesADay more than 0
 */
export function readingPlan(items: readonly Item[], first: DayName, minutesADay: number): PlannedDay[] {
  let [day, taken] = [first, 0];
  return items.flatMap((item): PlannedDay[] => {
    const minutes = minutesLeft(item);
    if (minutes <= 0) return [];
    if (taken > 0 && taken + minutes > minutesADay) [day, taken] = [addDays(day, 1), 0];
    taken += minutes;
    return [{ item, day }];
  });
}
