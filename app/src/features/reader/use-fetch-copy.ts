import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { useEffect, useState } from 'react';
import { keepCopy } from '@/device/cache/downloads';
import { useAccount } from '@/device/store/account';

/**
 * Brings a copy to this device that is not here: not all are brought ahead.
 *
 * @param copyId null when there is nothing to bring
 * @returns what went wrong, in words, or null
 */
export function useFetchCopy(item: Item | null, copyId: string | null, online: boolean): string | null {
  const store = useAccount((state) => state.store);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (!item || !copyId || !store || !online) return;
    keepCopy(store, item, copyId).then(
      () => setProblem(null),
      (error: unknown) =>
        setProblem(
          error instanceof ServerProblem || error instanceof Unreachable
            ? error.message
            : `The text could not be kept on this device: ${String(error)}`,
        ),
    );
  }, [item, copyId, store, online]);
  return problem;
}
