import { knotsOf } from '@dorvel/core/highlight';
import type { Highlight } from '@dorvel/core/model';
import { liveQuery } from 'dexie';
import { create } from 'zustand';
import { useAccount } from './account';
import type { DeviceStore } from './store';

interface KnotsState {
  /** By item: where its highlights are, as fractions of its text. */
  byItem: ReadonlyMap<string, readonly number[]>;
}

/** The knots that the strands of lists have. */
export const useKnots = create<KnotsState>()(() => ({ byItem: new Map() }));

/** Works them out whenever something is marked. @returns ends it */
export function followKnots(): () => void {
  const { store } = useAccount.getState();
  if (!store) return () => {};
  const following = liveQuery(() => store.highlights.toArray()).subscribe({
    next: (highlights) => void workOut(store, highlights),
  });
  return () => following.unsubscribe();
}

async function workOut(store: DeviceStore, highlights: readonly Highlight[]): Promise<void> {
  const marked = new Map<string, Highlight[]>();
  for (const highlight of highlights)
    if (!highlight.choices.removed.value)
      marked.set(highlight.itemId, [...(marked.get(highlight.itemId) ?? []), highlight]);
  const items = await store.items.bulkGet([...marked.keys()]);
  const byItem = new Map<string, readonly number[]>();
  for (const item of items) {
    const page = item?.capture.page;
    if (page) byItem.set(item.id, knotsOf(marked.get(item.id) ?? [], page.wordCount, page.language));
  }
  useKnots.setState({ byItem });
}
