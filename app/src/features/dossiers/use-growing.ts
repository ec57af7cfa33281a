import { startTransition, useEffect, useState } from 'react';

const FIRST = 6;
const STEP = 30;

/** How many of a long list are drawn: the first ones at once, the rest whenever there is time, so that a press is never held up. */
export function useGrowing(count: number): number {
  const [drawn, setDrawn] = useState(FIRST);
  useEffect(() => {
    if (drawn >= count) return undefined;
    const grow = () => startTransition(() => setDrawn((before) => before + STEP));
    const idle = 'requestIdleCallback' in globalThis ? requestIdleCallback(grow) : setTimeout(grow, 50);
    return () => ('cancelIdleCallback' in globalThis ? cancelIdleCallback(Number(idle)) : clearTimeout(idle));
  }, [drawn, count]);
  return Math.min(drawn, count);
}
