import { addDays, type DayName, daysBetween, mondayOf } from '../reading';

/** The week or month that is looked back on. */
export interface Period {
  kind: 'week' | 'month';
  /** Its first day and its last. */
  from: DayName;
  to: DayName;
}

/** The period in which a day lies: weeks begin on Monday (ISO 8601). */
export function periodOf(kind: Period['kind'], day: DayName): Period {
  if (kind === 'week') {
    const from = mondayOf(day);
    return { kind, from, to: addDays(from, 6) };
  }
  const from = `${day.slice(0, 8)}01`;
  const inNext = addDays(from, 31);
  return { kind, from, to: addDays(`${inNext.slice(0, 8)}01`, -1) };
}

/** The period before one. */
export function periodBefore({ kind, from }: Period): Period {
  return periodOf(kind, addDays(from, -1));
}

/** The period behind one. */
export function periodAfter({ kind, to }: Period): Period {
  return periodOf(kind, addDays(to, 1));
}

/** Whether a day lies in a period. */
export function isWithin({ from, to }: Period, day: DayName): boolean {
  return daysBetween(from, day) >= 0 && daysBetween(day, to) >= 0;
}
