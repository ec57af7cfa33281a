import { type Item, Stage } from '@dorvel/core/model';
import { create } from 'zustand';
import { useAccount } from './account';
import { feedItems } from './item-feed';
import { atPace, usePace } from './pace';

type Stages = Readonly<Record<Stage, readonly Item[]>>;

/** The items on this device, but those that another stands for, with the minutes that they take this reader. */
interface ItemsState {
  /** Undefined while they are being read. */
  all: readonly Item[] | undefined;
  /** What is read so far: at first what waits and what was saved last, then all. Undefined before that. */
  soFar: readonly Item[] | undefined;
  byId: ReadonlyMap<string, Item>;
  /** Of those that another item stands for, its id. */
  standIns: ReadonlyMap<string, string>;
  inStage: Stages;
  /** True while the store has changes that are not in here yet. */
  isBehind: boolean;
  /** Why they cannot be read; null when they can. */
  fault: Error | null;
}

const noStages = (): Record<Stage, Item[]> =>
  Object.fromEntries(Stage.options.map((stage) => [stage, []])) as unknown as Record<Stage, Item[]>;
const NONE: ItemsState = {
  all: undefined,
  soFar: undefined,
  byId: new Map(),
  standIns: new Map(),
  inStage: noStages(),
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
  /** What an item is at the reader's pace: the same object as long as both are the same. */
  let paced = new WeakMap<Item, Item>();
  const show = () => {
    const { paces } = usePace.getState();
    if (!read) return;
    const soFar: Item[] = [];
    const standIns = new Map<string, string>();
    const inStage = noStages();
    for (const item of read.values()) {
      if (item.capture.duplicateOf !== null) {
        standIns.set(item.id, item.capture.duplicateOf);
        continue;
      }
      const known = paced.get(item) ?? atPace(item, paces);
      paced.set(item, known);
      soFar.push(known);
      inStage[known.choices.stage.value].push(known);
    }
    const byId = new Map(soFar.map((item) => [item.id, item]));
    useItemsState.setState({
      all: isWhole ? soFar : undefined,
      soFar,
      byId,
      standIns,
      inStage,
      isBehind: !isWhole,
      fault: null,
    });
  };
  const endFeed = feedItems(
    store,
    (items, whole) => {
      read = items;
      isWhole = whole;
      store.layAtHand(items, whole);
      show();
    },
    (error) => useItemsState.setState({ fault: error instanceof Error ? error : new Error(String(error)) }),
    () => useItemsState.setState({ isBehind: true }),
  );
  const endPace = usePace.subscribe((now, before) => {
    if (now.paces === before.paces) return;
    paced = new WeakMap();
    show();
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
