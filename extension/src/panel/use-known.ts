import type { KnownPage } from '@dorvel/core/model';
import { useCallback, useEffect, useState } from 'react';
import { ask, type FromServer } from '../messages';

const AGAIN_MS = 700;
/** After so long the text is taken to need more time than one would look at a panel. */
const MAX_TRIES = 40;

/** What the library knows of what was saved; asked again until its text is there. */
export function useKnown(itemId: string): {
  known: FromServer<KnownPage> | null;
  /** Asks again, after a change. */
  again(): void;
} {
  const [known, setKnown] = useState<FromServer<KnownPage> | null>(null);
  const [round, setRound] = useState(0);
  useEffect(() => {
    let wanted = true;
    const isWanted = () => wanted;
    const look = async (triesLeft: number): Promise<void> => {
      if (!isWanted()) return;
      const answered = await ask('known', { itemId });
      if (!isWanted()) return;
      setKnown(answered);
      const state = answered.ok ? answered.answer.item?.capture.state : undefined;
      if (triesLeft > 0 && (state === 'waiting' || state === 'fetching')) {
        await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
        await look(triesLeft - 1);
      }
    };
    void look(MAX_TRIES);
    return () => {
      wanted = false;
    };
  }, [itemId, round]);
  return { known, again: useCallback(() => setRound((before) => before + 1), []) };
}
