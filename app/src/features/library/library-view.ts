import type { Item, Stage } from '@dorvel/core/model';
import { byQueueOrder, byRaised, inStage } from '@dorvel/core/queue';
import { titleOf } from '@dorvel/core/wording';
import { create } from 'zustand';
import type { ListTab } from '@/navigation/tabs';

export type StageFilter = 'all' | Stage;
export type SortOrder = 'saved' | 'length' | 'title';

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

const ORDERS: Record<SortOrder, (a: Item, b: Item) => number> = {
  saved: byRaised,
  length: (a, b) => (a.capture.page?.minutes ?? Infinity) - (b.capture.page?.minutes ?? Infinity) || byRaised(a, b),
  title: (a, b) => titleOf(a).localeCompare(titleOf(b)),
};

/** The items of a tab, in its order. */
export function itemsOfTab(
  items: readonly Item[],
  tab: ListTab,
  view: { filter: StageFilter; order: SortOrder },
): Item[] {
  if (tab === 'inbox') return items.filter((item) => inStage(item, 'inbox')).sort(byRaised);
  if (tab === 'queue') return items.filter((item) => inStage(item, 'queue')).sort(byQueueOrder);
  const { filter, order } = view;
  return items
    .filter((item) => (filter === 'all' ? item.choices.stage.value !== 'let-go' : inStage(item, filter)))
    .sort(ORDERS[order]);
}
