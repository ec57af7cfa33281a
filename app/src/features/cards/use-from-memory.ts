import { type RecallPlan, recallPlan } from '@dorvel/core/cards';
import { useEffect, useMemo, useState } from 'react';
import { useCards } from '@/device/store/library';
import { useFromMemorySettings } from './from-memory-store';

const LOOK_AGAIN_MS = 20_000;

/** What is due to be recalled; undefined while the cards are being read. */
export function useFromMemory(): (RecallPlan & { cardCount: number }) | undefined {
  const cards = useCards();
  const { fresh, repeated } = useFromMemorySettings();
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    // What was forgotten a minute ago comes due while the session is open.
    const timer = setInterval(() => setNow(Date.now()), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, []);
  return useMemo(() => {
    if (!cards) return undefined;
    const at = Math.max(now, ...cards.flatMap(({ recalls }) => Object.values(recalls).map((each) => each.at)));
    const today = new Date(at).setHours(0, 0, 0, 0);
    return { ...recallPlan(cards, at, today, { fresh, repeated }), cardCount: cards.length };
  }, [cards, now, fresh, repeated]);
}
