import type { Week } from '@dorvel/core/reading';
import { format } from 'date-fns/format';

/** The Monday of a week, short: "3 Nov". */
export function weekLabel({ startsOn }: Week): string {
  const [year = 0, month = 1, day = 1] = startsOn.split('-').map(Number);
  return format(new Date(year, month - 1, day), 'd MMM');
}
