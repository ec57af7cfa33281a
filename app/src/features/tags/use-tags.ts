import { isTagWithin, type Item, tagKey, tagsOf } from '@dorvel/core/model';
import { useMemo } from 'react';
import { useItems } from '@/device/store/items';

/** A tag of the reader's. */
export interface UsedTag {
  key: string;
  /** As they write it. */
  name: string;
  /** How many items have it, or one that nests under it; what was let go does not count. */
  count: number;
}

/** All tags that the reader uses, in alphabetical order, so that what nests stands under its parent. */
export function useTags(): readonly UsedTag[] {
  const items = useItems();
  return useMemo(() => (items ? tagsIn(items) : []), [items]);
}

/** Counted once for the several places of a screen that show them. */
const counted = new WeakMap<readonly Item[], readonly UsedTag[]>();

export function tagsIn(items: readonly Item[]): readonly UsedTag[] {
  const known = counted.get(items) ?? countTags(items);
  counted.set(items, known);
  return known;
}

function countTags(items: readonly Item[]): UsedTag[] {
  const tags = new Map<string, UsedTag>();
  for (const item of items) {
    if (item.choices.stage.value === 'let-go' || Object.keys(item.tags).length === 0) continue;
    const here = new Map<string, string>();
    for (const name of tagsOf(item)) {
      const parts = name.split('/');
      parts.forEach((_, at) => {
        const upTo = parts.slice(0, at + 1).join('/');
        here.set(tagKey(upTo), upTo);
      });
    }
    for (const [key, name] of here) {
      const known = tags.get(key);
      if (known) known.count += 1;
      else tags.set(key, { key, name, count: 1 });
    }
  }
  return [...tags.values()].sort((a, b) => a.key.localeCompare(b.key));
}

/** The change of one item's tags, and the one that takes it back. */
export interface TagChange {
  itemId: string;
  set: Record<string, string | null>;
  back: Record<string, string | null>;
}

/**
 * What renaming a tag changes: items that have it, or one that nests under it, get the new name in its place. A name
 * that is in use already merges the two; null takes the tag off.
 */
export function tagChanges(items: readonly Item[], key: string, to: string | null): TagChange[] {
  return items.flatMap((item) => {
    const set: Record<string, string | null> = {};
    const back: Record<string, string | null> = {};
    for (const name of tagsOf(item)) {
      const own = tagKey(name);
      if (!isTagWithin(own, key)) continue;
      const renamed = to === null ? null : `${to}${name.slice(key.length)}`;
      if (renamed === name) continue;
      if (renamed === null || tagKey(renamed) !== own) set[own] = null;
      if (renamed !== null) set[tagKey(renamed)] = renamed;
    }
    for (const changed of Object.keys(set))
      back[changed] = Object.hasOwn(item.tags, changed) ? (item.tags[changed]?.value ?? null) : null;
    return Object.keys(set).length > 0 ? [{ itemId: item.id, set, back }] : [];
  });
}
