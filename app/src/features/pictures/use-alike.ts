import type { Item } from '@dorvel/core/model';
import { alikeTo } from '@dorvel/core/picture';
import { useMemo } from 'react';
import { useItems } from '@/device/store/items';

const MOST = 6;

/** Of the library's other pictures those that are the same to the eye, and those that are like this one. */
export function useAlike(item: Item): { same: readonly Item[]; near: readonly Item[] } {
  const items = useItems();
  return useMemo(() => {
    const alike = alikeTo(item, items ?? []);
    return {
      same: alike.filter(({ isSame }) => isSame).map((each) => each.item),
      near: alike
        .filter(({ isSame }) => !isSame)
        .slice(0, MOST)
        .map((each) => each.item),
    };
  }, [items, item]);
}
