const DAY_MS = 24 * 60 * 60 * 1000;

/** A calendar day of the reader's, `2026-11-24`. */
export type DayName = string;

/** How many days lie between two days; negative when `to` is the earlier. */
export function daysBetween(from: DayName, to: DayName): number {
  return Math.round((Date.parse(`${to}T00:00Z`) - Date.parse(`${from}T00:00Z`)) / DAY_MS);
}

/** The day so many days later. */
export function addDays(day: DayName, days: number): DayName {
  return new Date(Date.parse(`${day}T00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);
}

/** The Monday of a day's week (ISO 8601 weeks). */
export function mondayOf(day: DayName): DayName {
  const weekday = new Date(`${day}T00:00Z`).getUTCDay();
  return addDays(day, -((weekday + 6) % 7));
}
