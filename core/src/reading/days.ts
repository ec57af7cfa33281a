import { addDays as addDaysTo } from 'date-fns/addDays';
import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { lightFormat } from 'date-fns/lightFormat';
import { parseISO } from 'date-fns/parseISO';
import { startOfISOWeek } from 'date-fns/startOfISOWeek';

/** A calendar day of the reader's, `2026-11-24`. */
export type DayName = string;

const nameOf = (date: Date): DayName => lightFormat(date, 'yyyy-MM-dd');

/** How many days lie between two days; negative when `to` is the earlier. */
export function daysBetween(from: DayName, to: DayName): number {
  return differenceInCalendarDays(parseISO(to), parseISO(from));
}

/** The day this many days later. */
export function addDays(day: DayName, days: number): DayName {
  return nameOf(addDaysTo(parseISO(day), days));
}

/** The Monday of a day's week (ISO 8601 weeks). */
export function mondayOf(day: DayName): DayName {
  return nameOf(startOfISOWeek(parseISO(day)));
}
