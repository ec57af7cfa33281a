import { create } from 'zustand';
import {
  beginDossier,
  changeDossier,
  changeEntries,
  lastDossier,
  type NewEntry,
  putInDossier,
} from '@/device/store/dossier-changes';
import { useNotices } from '@/ui/notices';

interface PutInState {
  /** What is to be put into a dossier, while it is asked which; null otherwise. */
  things: readonly NewEntry[] | null;
  ask(things: readonly NewEntry[]): void;
  close(): void;
}

/** The sheet that asks into which dossier things are put, from any screen. */
export const usePutIn = create<PutInState>()((set) => ({
  things: null,
  ask: (things) => set({ things }),
  close: () => set({ things: null }),
}));

/** Puts things into a dossier, with a way back. */
export async function putIn(dossier: { id: string; title: string }, things: readonly NewEntry[]): Promise<void> {
  const ids = await putInDossier(dossier.id, things);
  useNotices.getState().show({
    text: `${things.length === 1 ? 'In' : `${things.length} in`} “${dossier.title}”.`,
    action: { label: 'Undo', press: () => void changeEntries(ids, { removed: true }) },
  });
}

/** The same with the dossier that was used last; where there is none, it is asked which. */
export async function putInLast(things: readonly NewEntry[]): Promise<void> {
  const last = await lastDossier();
  if (last) await putIn({ id: last.id, title: last.choices.title.value }, things);
  else usePutIn.getState().ask(things);
}

/** The same with a dossier that is begun for it. @returns its id */
export async function putInNew(title: string, things: readonly NewEntry[]): Promise<string> {
  const id = await beginDossier(title);
  if (things.length > 0) await putInDossier(id, things);
  useNotices.getState().show({
    text: things.length === 0 ? 'The dossier is begun.' : `“${title}” is begun, with ${things.length} in it.`,
    action: { label: 'Undo', press: () => void changeDossier(id, { removed: true }) },
  });
  return id;
}

/** Items as they are put in. */
export const asEntries = (ids: readonly string[]): NewEntry[] => ids.map((itemId) => ({ kind: 'item', itemId }));
