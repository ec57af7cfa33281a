import { format } from 'date-fns/format';
import { parseISO } from 'date-fns/parseISO';
import { useEffect, useState } from 'react';

/** The reader's calendar day of an instant, by this device's clock and zone: `2026-11-24`. */
export function dayOf(instant: number): string {
  return format(instant, 'yyyy-MM-dd');
}

/** Noon of a calendar day, by this device's zone, in ms: an instant that is that day's for certain. */
export function noonOf(day: string): number {
  return parseISO(`${day}T12:00`).getTime();
}

/** Today, and tomorrow once it is that: an app left open over night must not live in yesterday. */
export function useToday(): string {
  const [today, setToday] = useState(() => dayOf(Date.now()));
  useEffect(() => {
    const look = () => setToday(dayOf(Date.now()));
    const timer = setInterval(look, 60_000);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, []);
  return today;
}
