import { useEffect, useState } from 'react';

/** What is over sooner than this, in milliseconds, is not worth a word: it would only flicker. */
const LATE_MS = 150;

/** Whether something has gone on for so long that it should be said. */
export function useLate(on: boolean): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (!on) return undefined;
    const timer = setTimeout(() => setLate(true), LATE_MS);
    return () => {
      clearTimeout(timer);
      setLate(false);
    };
  }, [on]);
  return on && late;
}
