import type { Activity, Feed, Item } from '@dorvel/core/model';
import { useLiveQuery } from 'dexie-react-hooks';
import { useAccount } from './account';
import type { KeptCopy } from './store';

/** All items on this device but those that another item stands for; undefined while they are being read. */
export function useItems(): Item[] | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(
    async () => (await store?.items.toArray())?.filter((item) => item.capture.sameAs === null),
    [store],
  );
}

/**
 * One item, or the one that stands for it.
 *
 * @returns undefined while it is being read, null when it is not on this device
 */
export function useItem(id: string): Item | null | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => {
    const item = await store?.items.get(id);
    const standing = item?.capture.sameAs ? await store?.items.get(item.capture.sameAs) : item;
    return standing ?? null;
  }, [store, id]);
}

/** A copy on this device: undefined while it is being read, null when it is not here. */
export function useCopy(id: string | null | undefined): KeptCopy | null | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => (id ? ((await store?.copies.get(id)) ?? null) : null), [store, id]);
}

/** Ids of the copies on this device, and the bytes that they take. */
export function useKeptCopies(): { ids: ReadonlySet<string>; bytes: number } | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => {
    const ids = new Set<string>();
    let bytes = 0;
    await store?.copies.each((copy) => {
      ids.add(copy.id);
      bytes += copy.bytes;
    });
    return { ids, bytes };
  }, [store]);
}

/** All sittings that this device knows of. */
export function useActivities(): Activity[] | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => store?.activities.toArray(), [store]);
}

/** All feeds that are or were followed; undefined while they are being read. */
export function useFeeds(): Feed[] | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => store?.feeds.toArray(), [store]);
}

/** How many changes wait to be sent. */
export function useWaitingCount(): number {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => (await store?.outbox.count()) ?? 0, [store]) ?? 0;
}
