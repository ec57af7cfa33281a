import type { Item } from '../model';
import type { DayName } from '../reading/days';

/**
 * True when an item is to surface today: its day has come, and the reader has not been in it since.
 *
 * @param lastIn the day on which the reader was in it last; null for never
 */
export function isDue(item: Item, today: DayName, lastIn: DayName | null): boolean {
  const day = item.choices.comeBackOn.value;
  if (day === null || day > today || item.choices.stage.value === 'let-go') return false;
  return lastIn === null || lastIn < day;
}
