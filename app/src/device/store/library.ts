import type {
  Activity,
  Card,
  Dossier,
  DossierEntry,
  Feed,
  Highlight,
  Item,
  Note,
  Pin,
  SavedSearch,
  Silence,
} from '@dorvel/core/model';
import { isLive } from '@dorvel/core/notes';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { copyAtHand, itemAtHand, takeSnapshot } from '@/device/cache/snapshot-cache';
import { useAccount } from './account';
import { atPace, usePace } from './pace';
import type { DeviceStore, KeptCopy, SetAside } from './store';

/**
 * One item, or the one that stands for it.
 *
 * @returns undefined while it is being read, null when it is not on this device
 */
export function useItem(id: string): Item | null | undefined {
  const store = useAccount((state) => state.store);
  const paces = usePace((state) => state.paces);
  const item = useLiveQuery(
    async (): Promise<Item | null> => {
      const found = await store?.items.get(id);
      const canonical = found?.capture.duplicateOf ? await store?.items.get(found.capture.duplicateOf) : found;
      return canonical ?? null;
    },
    [store, id],
    itemAtHand(store, id),
  );
  return useMemo(() => item && atPace(item, paces), [item, paces]);
}

/** A copy on this device: undefined while it is being read, null when it is not here. */
export function useCopy(id: string | null | undefined): KeptCopy | null | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(
    async (): Promise<KeptCopy | null> => (store && id ? takeSnapshot(store, id) : null),
    [store, id],
    copyAtHand(store, id),
  );
}

/** The bytes that the copies on this device take, with their pictures: added up over an index. */
export function useKeptBytes(): number | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => {
    const sizes = (await store?.copies.orderBy('bytes').keys()) ?? [];
    return sizes.reduce<number>((sum, bytes) => sum + Number(bytes), 0);
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

/** What is marked in an item; undefined while it is being read. */
export function useHighlightsOf(itemId: string): Highlight[] | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => store?.highlightsOf(itemId), [store, itemId]);
}

const remembered = new WeakMap<DeviceStore, Map<string, unknown>>();

/**
 * What a store holds of a kind, as it was read last until it is read again: a screen that is come back to stands at once.
 *
 * @returns undefined while it is being read for the first time
 */
function useRemembered<Value>(what: string, read: (store: DeviceStore) => Promise<Value>): Value | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(
    async () => {
      if (!store) return undefined;
      const value = await read(store);
      remembered.set(store, (remembered.get(store) ?? new Map<string, unknown>()).set(what, value));
      return value;
    },
    [store],
    (store && (remembered.get(store)?.get(what) as Value | undefined)) ?? undefined,
  );
}

/** All that is marked; undefined while it is being read. */
export const useHighlights = (): Highlight[] | undefined =>
  useRemembered('highlights', async ({ highlights }) =>
    (await highlights.toArray()).filter(({ choices }) => !choices.removed.value),
  );

/** The searches that the reader keeps, the oldest first. */
export function useSearches(): SavedSearch[] | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(
    async () =>
      (await store?.searches.toArray())
        ?.filter(({ choices }) => !choices.removed.value)
        .sort((a, b) => a.madeAt - b.madeAt),
    [store],
  );
}

/** What the reader has silenced, the latest first. */
export function useSilences(): Silence[] | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(
    async () =>
      (await store?.silences.toArray())
        ?.filter(({ choices }) => choices.silenced.value)
        .sort((a, b) => b.madeAt - a.madeAt),
    [store],
  );
}

/** What the reader has pinned to Now, by id, what was pinned first before the others. */
export function usePins(): ReadonlyMap<string, Pin> {
  const store = useAccount((state) => state.store);
  return (
    useLiveQuery(async () => {
      const pinned = (await store?.pins.toArray())?.filter(({ choices }) => choices.pinned.value) ?? [];
      return new Map(pinned.sort((a, b) => a.madeAt - b.madeAt).map((each) => [each.id, each]));
    }, [store]) ?? NO_PINS
  );
}
const NO_PINS: ReadonlyMap<string, Pin> = new Map();

/** The dossiers that there are, the one that was changed or filled last first. */
export async function readDossiers(store: DeviceStore): Promise<Dossier[]> {
  const [dossiers, entries] = await Promise.all([store.dossiers.toArray(), store.entries.toArray()]);
  const last = new Map(
    dossiers.map(({ id, choices, words }) => [
      id,
      lastStamp([...Object.values(choices), ...words.introduction, ...words.closing]),
    ]),
  );
  for (const { dossierId, choices } of entries) {
    const stamp = lastStamp(choices);
    if (stamp > (last.get(dossierId) ?? '')) last.set(dossierId, stamp);
  }
  return dossiers
    .filter(({ choices }) => !choices.removed.value)
    .sort((a, b) => ((last.get(a.id) ?? '') < (last.get(b.id) ?? '') ? 1 : -1));
}

/** The same, undefined while they are being read. */
export const useDossiers = (): Dossier[] | undefined => useRemembered('dossiers', readDossiers);

const lastStamp = (registers: object): string =>
  Object.values(registers as Record<string, { at: string }>).reduce((last, { at }) => (at > last ? at : last), '');

/** What is in dossiers, also what was taken out; undefined while it is being read. */
export const useDossierEntries = (): DossierEntry[] | undefined =>
  useRemembered('entries', ({ entries }) => entries.toArray());

/** All that the reader wrote in notes of their own, the latest first; undefined while it is being read. */
export const useNotes = (): Note[] | undefined =>
  useRemembered('notes', async ({ notes }) =>
    (await notes.toArray()).filter(isLive).sort((a, b) => b.madeAt - a.madeAt),
  );

/** The note that an item or a highlight has a field for: undefined while it is being read, null when there is none. */
export function useOwnNote(id: string): Note | null | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => (await store?.notes.get(id)) ?? null, [store, id]);
}

/** What the reader wrote on an item, by the ids of the notes; empty while it is being read. */
export function useNotesOf(itemId: string): ReadonlyMap<string, Note> {
  const store = useAccount((state) => state.store);
  return (
    useLiveQuery(
      async () =>
        new Map(
          (await store?.notes.where('itemId').equals(itemId).toArray())?.filter(isLive).map((note) => [note.id, note]),
        ),
      [store, itemId],
    ) ?? NO_NOTES
  );
}
const NO_NOTES: ReadonlyMap<string, Note> = new Map();

/** All cards; undefined while they are being read. */
export function useCards(): Card[] | undefined {
  const store = useAccount((state) => state.store);
  return useLiveQuery(
    async () => (await store?.cards.toArray())?.filter(({ choices }) => !choices.removed.value),
    [store],
  );
}

/** How many changes wait to be sent. */
export function useWaitingCount(): number {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => (await store?.outbox.count()) ?? 0, [store]) ?? 0;
}

/** The changes that the server would not take, the oldest first. */
export function useSetAside(): SetAside[] {
  const store = useAccount((state) => state.store);
  return useLiveQuery(async () => (await store?.aside.toArray())?.sort((a, b) => a.at - b.at), [store]) ?? [];
}
