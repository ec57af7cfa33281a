import type { Activity, Item } from '@dorvel/core/model';
import { type Pace, paceFactor, pacesOf } from '@dorvel/core/reading';
import { liveQuery } from 'dexie';
import { z } from 'zod';
import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { useAccount } from './account';
import { readSetting, writeSetting } from './settings-storage';
import type { DeviceStore } from './store';

const Since = z.object({ since: z.number() });

/** How fast this reader reads, by ISO 639-1 code. */
export type Paces = Readonly<Record<string, Pace>>;

interface PaceState {
  paces: Paces;
  /** What was read before this instant does not count. */
  since: number;
  /** Forgets what was measured. */
  beginAnew(): void;
}

/** How fast this reader reads, measured on all their devices. */
export const usePace = create<PaceState>()((set) => ({
  paces: {},
  since: readSetting('pace', Since, { since: 0 }).since,
  beginAnew: () => {
    const since = Date.now();
    writeSetting('pace', { since });
    set({ since, paces: {} });
  },
}));

/** What the usual minutes are multiplied by, by language; to a hundredth, and the same object while nothing changes. */
export function usePaceFactors(): Record<string, number> {
  return usePace(
    useShallow(({ paces }) =>
      Object.fromEntries(Object.entries(paces).map(([code, { factor }]) => [code, Math.round(factor * 100) / 100])),
    ),
  );
}

/** Measures again whenever a sitting has grown. @returns ends it */
export function followPace(): () => void {
  const { store } = useAccount.getState();
  if (!store) return () => {};
  const following = liveQuery(() => store.activities.toArray()).subscribe({
    next: (activities) => void measure(store, activities),
  });
  return () => following.unsubscribe();
}

async function measure(store: DeviceStore, activities: readonly Activity[]): Promise<void> {
  // Read once, not watched: a language hardly ever changes, and an item does at each word.
  const ids = [...new Set(activities.map(({ itemId }) => itemId))];
  const items = await store.items.bulkGet(ids);
  const languages = new Map(items.map((item) => [item?.id, item?.capture.page?.language]));
  usePace.setState(({ since }) => ({ paces: pacesOf(activities, (id) => languages.get(id), since) }));
}

/** An item with the minutes that it takes this reader. */
export function atPace<Known extends Item>(item: Known, paces: Paces): Known {
  const { page } = item.capture;
  const factor = paceFactor(paces, page?.language ?? null);
  if (!page || factor === 1) return item;
  return { ...item, capture: { ...item.capture, page: { ...page, minutes: page.minutes * factor } } };
}
