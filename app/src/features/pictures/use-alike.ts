import type { Item, PictureSeen } from '@dorvel/core/model';
import { alikeness, looksTheSame } from '@dorvel/core/picture';
import { useMemo } from 'react';
import { useItems } from '@/device/store/items';

const MOST = 6;
/** Less than that is no likeness that anybody would see. */
const LEAST = 0.6;

const seenIn = ({ choices, capture }: Item): PictureSeen | null => {
  const seen = capture.page?.pictures[0]?.seen ?? null;
  return seen && choices.kindSaid.value ? { ...seen, kind: choices.kindSaid.value } : seen;
};

/** Of the library's other pictures those that are the same to the eye, and those that are like this one. */
export function useAlike(item: Item): { same: readonly Item[]; near: readonly Item[] } {
  const items = useItems();
  const mine = seenIn(item);
  return useMemo(() => {
    if (!mine || !items) return { same: [], near: [] };
    const others = items.flatMap((other) => {
      const seen = other.id === item.id || other.choices.stage.value === 'let-go' ? null : seenIn(other);
      return seen ? [{ other, seen, worth: alikeness(mine, seen) }] : [];
    });
    const isSame = ({ seen }: (typeof others)[number]) => looksTheSame(mine.likeness, seen.likeness);
    return {
      same: others.filter(isSame).map(({ other }) => other),
      near: others
        .filter((each) => !isSame(each) && each.worth >= LEAST)
        .sort((a, b) => b.worth - a.worth)
        .slice(0, MOST)
        .map(({ other }) => other),
    };
  }, [items, item.id, JSON.stringify(mine)]); // eslint-disable-line react-hooks/exhaustive-deps -- what was seen is made anew with each change of the item; what is in it counts
}
