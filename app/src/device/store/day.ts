import { format } from 'date-fns/format';
import { useEffect, useState } from 'react';

/** The reader's calendar day of an instant, by this device's clock and zone: `2026-11-24`. */
export function dayOf(instant: number): string {
  return format(instant, 'yyyy-MM-dd');
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
