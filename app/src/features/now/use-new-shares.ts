import type { Item } from '@dorvel/core/model';
import { inStage } from '@dorvel/core/queue';
import { wordStarts } from '@dorvel/core/text';
import { useEffect, useMemo, useState } from 'react';
import { useAccount } from '@/device/store/account';
import { useSettledTexts } from '@/device/store/settled-texts';
import { knownOf } from '@/device/workers/relate/use-related';

const ALL_NEW: ReadonlyMap<string, number> = new Map();
const LEAST = 0.05;

/**
 * How much of each item of the Queue in which the reader passes over what they know is new to them, 0 to 1: only so much of
 * its minutes will be spent. Worked out in the worker, one after the other; those that are not in it count as all new.
 */
export function useNewShares(items: readonly Item[]): ReadonlyMap<string, number> {
  const accountId = useAccount((state) => state.account?.id);
  const texts = useSettledTexts();
  const wanted = useMemo(
    () => items.filter((item) => inStage(item, 'queue') && item.choices.known.value === 'passed-over'),
    [items],
  );
  const question = `${texts} ${wanted.map(({ id, capture }) => `${id} ${capture.page?.copyId ?? ''}`).join(' ')}`;
  const [shares, setShares] = useState(ALL_NEW);
  useEffect(() => {
    if (accountId === undefined || wanted.length === 0) {
      setShares(ALL_NEW);
      return undefined;
    }
    let isWanted = true;
    Promise.all(wanted.map(async (item) => [item.id, await newShareOf(accountId, item)] as const)).then(
      (found) => isWanted && setShares(new Map(found)),
      // Then all of it counts, as it does elsewhere; the failure is told where faults are.
      reportError,
    );
    return () => void (isWanted = false);
  }, [question, accountId]); // eslint-disable-line react-hooks/exhaustive-deps -- the question names the items and their texts
  return shares;
}

async function newShareOf(accountId: string, { id, capture: { page } }: Item): Promise<number> {
  if (!page?.copyId) return 1;
  const known = await knownOf(accountId, id, page.copyId);
  const words = known.reduce((sum, { form }) => sum + wordStarts(form, page.language).length, 0);
  return Math.max(LEAST, 1 - words / Math.max(1, page.wordCount));
}
