import type { Item } from '@dorvel/core/model';
import { create } from 'zustand';
import { useAccount } from '@/device/store/account';
import type { KeptCopy } from '@/device/store/store';
import type { KnownSentence } from '@/device/workers/relate/relating';
import { knownOf } from '@/device/workers/relate/use-related';

/** What of the texts that were opened is known, by copy: for the voice, which asks without waiting. */
export const useKnownStore = create<{
  byCopy: ReadonlyMap<string, readonly KnownSentence[]>;
  keep(copyId: string, known: readonly KnownSentence[]): void;
}>()((set) => ({
  byCopy: new Map(),
  keep: (copyId, known) => set(({ byCopy }) => ({ byCopy: new Map(byCopy).set(copyId, known) })),
}));

const NOTHING: readonly KnownSentence[] = [];

/** What of a text is to be passed over now. */
export function passedOverIn(item: Item, copy: Pick<KeptCopy, 'id'>): readonly KnownSentence[] {
  return item.choices.known.value === 'passed-over'
    ? (useKnownStore.getState().byCopy.get(copy.id) ?? NOTHING)
    : NOTHING;
}

/** Makes sure that what is to be passed over in a text can be told. */
export async function lookUpKnown(item: Item, copy: Pick<KeptCopy, 'id'>): Promise<void> {
  const accountId = useAccount.getState().account?.id;
  const { byCopy, keep } = useKnownStore.getState();
  if (item.choices.known.value !== 'passed-over' || accountId === undefined || byCopy.has(copy.id)) return;
  try {
    keep(copy.id, await knownOf(accountId, item.id, copy.id));
  } catch (error) {
    // Then all of it is heard, which loses nothing; the failure is told where faults are.
    reportError(error);
  }
}
