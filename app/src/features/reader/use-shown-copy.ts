import { treeAsRead } from '@dorvel/core/copies';
import type { Item } from '@dorvel/core/model';
import { useMemo } from 'react';
import type { KeptCopy } from '@/device/store/store';

/** A copy as it is read: see treeAsRead. Undefined and null are passed on. */
export function useShownCopy<Copy extends KeptCopy | null | undefined>(
  item: Item | null | undefined,
  copy: Copy,
): Copy {
  const put = Object.values(item?.putRight ?? {});
  return useMemo(
    () => {
      if (!copy || !item) return copy;
      const tree = treeAsRead(copy, item);
      return tree === copy.tree ? copy : { ...copy, tree };
    },
    [copy, item?.choices.tidied.at, item?.choices.typed.at, put.map(({ at }) => at).join(' ')], // eslint-disable-line react-hooks/exhaustive-deps -- what it depends on changes with its stamp alone
  );
}
