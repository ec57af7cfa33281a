import { beginSession, moveOn, type ReadingSession } from '@dorvel/core/reading';
import { useCallback, useRef } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { recordActivity } from '@/device/store/changes';
import { dayOf } from '@/device/store/day';

/** Shorter than this nobody has read anything. */
const WORTH_RECORDING_S = 5;

/**
 * Records the time that an item is read by eye.
 *
 * @returns what to call at each sign of life: with the word that the reader is at, or null when nobody reads by eye now
 */
export function useTimeRead(itemId: string): (word: number | null) => void {
  const session = useRef<ReadingSession | null>(null);
  return useCallback(
    (word) => {
      if (word === null) {
        session.current = null;
        return;
      }
      const now = Date.now();
      const gone = session.current && moveOn(session.current, now, word);
      session.current = gone ?? beginSession({ id: uuidv7(), itemId, day: dayOf(now), by: 'eyes' }, now, word);
      const { activity } = session.current;
      if (gone && activity.seconds >= WORTH_RECORDING_S) void recordActivity(activity);
    },
    [itemId],
  );
}
