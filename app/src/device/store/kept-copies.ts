import Dexie, { type ObservabilitySet } from 'dexie';
import { create } from 'zustand';
import { useAccount } from './account';

/** Texts come one after another when they are brought ahead: what shows which are here is drawn again no more often. */
const REST_MS = 800;

/** Ids of the copies on this device; undefined while they are being read. */
const useKept = create<{ ids: ReadonlySet<string> | undefined }>()(() => ({ ids: undefined }));

/** Keeps the ids of the copies in step with the store of who is signed in. @returns ends it */
export function followCopies(): () => void {
  const { store } = useAccount.getState();
  useKept.setState({ ids: undefined });
  if (!store) return () => {};
  const here = `idb://${store.name}/${store.copies.name}/`;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let isOver = false;
  const read = () =>
    store.copies
      .toCollection()
      .primaryKeys()
      .then((ids) => {
        if (!isOver) useKept.setState({ ids: new Set(ids) });
      })
      .catch(reportError);
  const mutated = (parts: ObservabilitySet) => {
    if (timer !== null || !Object.keys(parts).some((part) => part.startsWith(here))) return;
    timer = setTimeout(() => {
      timer = null;
      void read();
    }, REST_MS);
  };
  Dexie.on('storagemutated', mutated);
  void read();
  return () => {
    isOver = true;
    if (timer !== null) clearTimeout(timer);
    Dexie.on.storagemutated.unsubscribe(mutated);
    useKept.setState({ ids: undefined });
  };
}

/** Ids of the copies on this device. Their texts are not read for it. */
export const useKeptCopies = (): ReadonlySet<string> | undefined => useKept((state) => state.ids);
