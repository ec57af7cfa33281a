import { tidiedTree, tidyingOf } from '@dorvel/core/copies';
import type { Item } from '@dorvel/core/model';
import { useMemo } from 'react';
import type { KeptCopy } from '@/device/store/store';

/** A copy as it is read: without the blocks that the reader took out of it. Undefined and null are passed on. */
export function useShownCopy<Copy extends KeptCopy | null | undefined>(
  item: Item | null | undefined,
  copy: Copy,
): Copy {
  const out = item && copy ? tidyingOf(item.choices, copy.id)?.out : undefined;
  const key = out?.join() ?? '';
  return useMemo(
    () => (copy && out && out.length > 0 ? { ...copy, tree: tidiedTree(copy.tree, out) } : copy),
    [copy, key], // eslint-disable-line react-hooks/exhaustive-deps -- the list is made anew with each change of the item; what is in it counts
  );
}
