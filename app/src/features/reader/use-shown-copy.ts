import { treeAsRead } from '@dorvel/core/copies';
import type { Item } from '@dorvel/core/model';
import { useMemo } from 'react';
import type { KeptCopy } from '@/device/store/store';

/** A copy as it is read: see treeAsRead. Undefined and null are passed on. */
export function useShownCopy<Copy extends KeptCopy | null | undefined>(
  item: Item | null | undefined,
  copy: Copy,
): Copy {
  const choices = item?.choices;
  return useMemo(
    () => {
      if (!copy || !choices) return copy;
      const tree = treeAsRead(copy, choices);
      return tree === copy.tree ? copy : { ...copy, tree };
    },
    [copy, choices?.tidied.at, choices?.putRight.at, choices?.typed.at], // eslint-disable-line react-hooks/exhaustive-deps -- what it depends on changes with its stamp alone
  );
}
