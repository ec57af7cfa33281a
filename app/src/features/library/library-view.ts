import { type Item, type Stage, tagsOf } from '@dorvel/core/model';
import { byQueueOrder, byRaised, inStage as isInStage } from '@dorvel/core/queue';
import { minutesLeft } from '@dorvel/core/reading';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { useMemo } from 'react';
import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { type ShownItems, useItemsState } from '@/device/store/items';
import type { ListTab } from '@/navigation/tabs';
import type { SortOrder } from './headed';

export type StageFilter = 'all' | Stage;

interface LibraryViewState {
  filter: StageFilter;
  order: SortOrder;
  show(changes: { filter?: StageFilter; order?: SortOrder }): void;
  /** How far each list was scrolled, so that coming back finds the place. */
  scrolled: Partial<Record<ListTab, number>>;
}

/** How the Library is being looked at. */
export const useLibraryView = create<LibraryViewState>()((set) => ({
  filter: 'all',
  order: 'saved',
  scrolled: {},
  show: (changes) => set(changes),
}));

const byName = new Intl.Collator().compare;
const byFirstTag = (a: string | undefined, b: string | undefined) =>
  a === undefined || b === undefined ? Number(a === undefined) - Number(b === undefined) : byName(a, b);
const leftOf = (item: Item) => (item.capture.page ? minutesLeft(item) : Infinity);

const ORDERS: Record<SortOrder, (a: Item, b: Item) => number> = {
  saved: byRaised,
  length: (a, b) => (a.capture.page?.minutes ?? Infinity) - (b.capture.page?.minutes ?? Infinity) || byRaised(a, b),
  left: (a, b) => leftOf(a) - leftOf(b) || byRaised(a, b),
  site: (a, b) => byName(sourceOf(a), sourceOf(b)) || byRaised(a, b),
  tag: (a, b) => byFirstTag(tagsOf(a)[0], tagsOf(b)[0]) || byRaised(a, b),
  title: (a, b) => byName(titleOf(a), titleOf(b)),
};

/**
 * The items of a tab, in its order.
 *
 * @param held all items but those that were let go, and by stage; the newest save first
 */
export function itemsOfTab(
  { held, inStage }: ShownItems,
  tab: ListTab,
  { filter, order }: { filter: StageFilter; order: SortOrder },
): readonly Item[] {
  if (tab === 'inbox') return inStage.inbox;
  if (tab === 'queue') return [...inStage.queue].sort(byQueueOrder);
  const shown =
    filter === 'all' ? held : filter === 'finished' ? held.filter((item) => isInStage(item, filter)) : inStage[filter];
  return order === 'saved' ? shown : [...shown].sort(ORDERS[order]);
}

/** The same, followed. */
export function useItemsOfTab(tab: ListTab, view: { filter: StageFilter; order: SortOrder }): readonly Item[] {
  const [held, inStage] = useItemsState(useShallow((state) => [state.held, state.inStage] as const));
  const { filter, order } = view;
  return useMemo(() => itemsOfTab({ held, inStage }, tab, { filter, order }), [held, inStage, tab, filter, order]);
}
