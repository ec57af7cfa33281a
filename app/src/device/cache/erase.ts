import { isLive } from '@dorvel/core/notes';
import { isToBeErased } from '@dorvel/core/queue';
import type { DeviceStore } from '@/device/store/store';

/**
 * Erases what was let go more than 30 days ago, by the same rule as the server does. What the reader has marked, written
 * on or put in a dossier stays: of that the server takes the text alone. Copies and pictures go as those of all that was let go do; see
 * downloads.ts.
 *
 * @param now by the server's clock, milliseconds since 1970
 * @returns ids of the items that were erased
 */
export async function eraseLetGo(store: DeviceStore, now: number): Promise<string[]> {
  // What stands in a dossier stays, too: others may have been shown it.
  const live = await store.entries.filter(({ choices }) => !choices.removed.value).toArray();
  const inDossiers = new Set(live.flatMap(({ part }) => ('itemId' in part ? [part.itemId] : [])));
  const letGo = await store.items.where('choices.stage.value').equals('let-go').toArray();
  const erased: string[] = [];
  for (const item of letGo.filter((each) => isToBeErased(each, now))) {
    if (inDossiers.has(item.id) || (await hasOwnWriting(store, item.id))) continue;
    const pointers = await store.items.filter(({ capture }) => capture.duplicateOf === item.id).primaryKeys();
    const ids = [item.id, ...pointers];
    await store.transaction(
      'rw',
      [store.items, store.findables, store.highlights, store.notes, store.cards],
      async () => {
        await store.items.bulkDelete(ids);
        await store.findables.bulkDelete(ids);
        await store.highlights.where('itemId').equals(item.id).delete();
        await store.notes.where('itemId').equals(item.id).delete();
        await store.cards.where('source.itemId').equals(item.id).delete();
      },
    );
    for (const id of ids) store.itemsAtHand.delete(id);
    erased.push(...ids);
  }
  return erased;
}

async function hasOwnWriting(store: DeviceStore, itemId: string): Promise<boolean> {
  const [highlights, notes, cards] = await Promise.all([
    store.highlights.where('itemId').equals(itemId).toArray(),
    store.notes.where('itemId').equals(itemId).toArray(),
    store.cards.where('source.itemId').equals(itemId).toArray(),
  ]);
  return notes.some(isLive) || [...highlights, ...cards].some(({ choices }) => !choices.removed.value);
}
