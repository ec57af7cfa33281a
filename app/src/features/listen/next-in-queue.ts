import type { Item } from '@dorvel/core/model';
import { byQueueOrder, inStage } from '@dorvel/core/queue';
import { useAccount } from '@/device/store/account';
import type { KeptCopy } from '@/device/store/store';
import { lookUpKnown } from '@/features/new-to-you/known-store';
import { chosenVoice } from './listening-settings-store';

/**
 * What is heard behind an item: what stands below it in the Queue, has its text on this device and a voice for it.
 *
 * @param after the item that was heard; when it is not in the Queue, the Queue is begun at its top
 * @returns null at the end of the Queue
 */
export async function nextInQueue(after: string): Promise<{ item: Item; copy: KeptCopy } | null> {
  const { store } = useAccount.getState();
  if (!store) return null;
  const queue = (await store.allItems())
    .filter((item) => item.capture.duplicateOf === null && inStage(item, 'queue'))
    .sort(byQueueOrder);
  for (const item of queue.slice(queue.findIndex(({ id }) => id === after) + 1)) {
    const copyId = item.capture.page?.copyId;
    const copy = copyId && item.id !== after ? await store.copies.get(copyId) : undefined;
    if (!copy || !chosenVoice(copy.language)) continue;
    await lookUpKnown(item, copy);
    return { item, copy };
  }
  return null;
}
