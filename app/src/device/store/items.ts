import type { Item, Stage } from '@dorvel/core/model';
import { create } from 'zustand';
import { useAccount } from './account';
import { feedItems } from './item-feed';
import { usePace } from './pace';
import { noStages, type Shown, shownAfter, shownOf } from './shown-items';
import type { DeviceStore } from './store';

/** The items on this device, as screens have them. */
/** Items in the order of their saving, all but what was let go and by stage. */
export type ShownItems = Pick<Shown, 'held' | 'inStage'>;

interface ItemsState extends Omit<Shown, 'soFar'> {
  /** Undefined while they are being read. */
  all: readonly Item[] | undefined;
  /** What is read so far: at first what waits and what was saved last, then all. Undefined before that. */
  soFar: readonly Item[] | undefined;
  /** True while the store has changes that are not in here yet. */
  isBehind: boolean;
  /** Why they cannot be read; null when they can. */
  fault: Error | null;
}

const NONE: ItemsState = {
  all: undefined,
  soFar: undefined,
  byId: new Map(),
  standIns: new Map(),
  inStage: noStages(),
  held: [],
  isBehind: true,
  fault: null,
};

/** The one place in this tab that holds the library's items; see followItems. */
export const useItemsState = create<ItemsState>()(() => NONE);

/** Keeps the items in step with the store of who is signed in, and with how fast they read. @returns ends it */
export function followItems(): () => void {
  const { store } = useAccount.getState();
  useItemsState.setState(NONE);
  if (!store) return () => {};
  let read: ReadonlyMap<string, Item> | null = null;
  let isWhole = false;
  const tell = (shown: Shown) =>
    useItemsState.setState({ ...shown, all: isWhole ? shown.soFar : undefined, isBehind: !isWhole, fault: null });
  const endFeed = feedItems(
    store,
    (items, whole, changed) => {
      const before = useItemsState.getState();
      read = items;
      isWhole = whole;
      store.layAtHand(items, whole, changed);
      const { paces } = usePace.getState();
      tell(
        changed && before.all
          ? shownAfter({ ...before, soFar: before.all }, items, changed, paces)
          : shownOf(items, paces),
      );
    },
    (error) => useItemsState.setState({ fault: error instanceof Error ? error : new Error(String(error)) }),
    () => useItemsState.setState({ isBehind: true }),
  );
  const endPace = usePace.subscribe((now, before) => {
    if (now.paces !== before.paces && read) tell(shownOf(read, now.paces));
  });
  return () => {
    endFeed();
    endPace();
    // Who signs in next must not see them, not for a moment.
    useItemsState.setState(NONE);
  };
}

/** All items on this device but those that another item stands for; undefined while they are being read. */
export function useItems(): readonly Item[] | undefined {
  const fault = useItemsState((state) => state.fault);
  // The nearest boundary says so.
  if (fault !== null) throw fault;
  return useItemsState((state) => state.all);
}

/**
 * Items as far as they are read, for a list that need not wait for the last of them: what waits in Inbox and Queue is all there
 * from the first. Undefined before that.
 */
export function useItemsSoFar(): readonly Item[] | undefined {
  const fault = useItemsState((state) => state.fault);
  if (fault !== null) throw fault;
  return useItemsState((state) => state.soFar);
}

/** Items of one stage; none while they are being read. */
export const useItemsIn = (stage: Stage) => useItemsState((state) => state.inStage[stage]);

/** Items by id, but those that another stands for; none while they are being read. */
export const useItemsById = () => useItemsState((state) => state.byId);

/** What stands for items, by their ids: themselves, or the item that another page turned out to be the same as. */
export const useStandIns = () => useItemsState((state) => state.standIns);

/**
 * What is on a device, by stage, the newest save first: as screens have it where they have all of it, and else with what they do
 * not have yet.
 */
export async function itemsByStage(of: DeviceStore): Promise<Shown['inStage']> {
  const { all, inStage, isBehind } = useItemsState.getState();
  if (all && !isBehind && of === useAccount.getState().store) return inStage;
  return shownOf(new Map((await of.allItems()).map((item) => [item.id, item])), {}).inStage;
}
