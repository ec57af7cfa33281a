import { canonicalAddress, type AddressReading } from '@dorvel/core/address';
import type { Activity, ChoiceChanges, Item, Mutation, Spans, TextAnchor } from '@dorvel/core/model';
import { saveAgain } from '@dorvel/core/queue';
import { createClock } from '@dorvel/core/sync';
import { v7 as uuidv7 } from 'uuid';
import { deviceName, useAccount } from './account';
import type { DeviceStore } from './store';
import { syncSoon } from './sync-loop';

const clock = createClock(deviceName, Date.now);

function store(): DeviceStore {
  const { store: open } = useAccount.getState();
  if (!open) throw new Error('nobody has signed in on this device');
  return open;
}

async function commit(mutation: Mutation): Promise<void> {
  await store().commit(mutation);
  syncSoon();
}

export type SaveOutcome = { kind: 'saved'; itemId: string } | { kind: 'already-saved'; item: Item };

/**
 * Saves an address. Asks nothing and waits for nothing: the item is on this device when this returns. An address
 * that the library has already brings up the first item instead.
 */
export async function saveAddress({ address }: Extract<AddressReading, { ok: true }>): Promise<SaveOutcome> {
  const key = canonicalAddress(address);
  const items = await store().items.toArray();
  const known = items.find((item) => item.capture.addressKey === key && item.capture.sameAs === null);
  if (known) {
    const queue = items.filter((item) => item.choices.stage.value === 'queue');
    await choose(known.id, saveAgain(known, queue, Date.now()));
    return { kind: 'already-saved', item: known };
  }
  const itemId = uuidv7();
  await commit({ type: 'save', id: uuidv7(), itemId, address, savedAt: Date.now(), stamp: clock.next() });
  return { kind: 'saved', itemId };
}

/** Records what the reader decided about an item. */
export async function choose(itemId: string, set: ChoiceChanges): Promise<void> {
  const item = await store().items.get(itemId);
  // A stamp from a device whose clock runs ahead must not win over what is decided here and now.
  if (item) for (const register of Object.values(item.choices)) clock.see(register.at);
  await commit({ type: 'choose', id: uuidv7(), itemId, set, stamp: clock.next() });
}

/** Records how far the reader is, and what of the text went by ear. */
export async function recordProgress(
  itemId: string,
  furthest: number,
  position: TextAnchor,
  heard: Spans = [],
): Promise<void> {
  const item = await store().items.get(itemId);
  if (item?.progress.position) clock.see(item.progress.position.at);
  await commit({ type: 'progress', id: uuidv7(), itemId, furthest, position, heard, stamp: clock.next() });
}

/** Records a sitting, or that it has grown. */
export async function recordActivity(activity: Activity): Promise<void> {
  await commit({
    type: 'activity',
    id: uuidv7(),
    itemId: activity.itemId,
    activity,
    stamp: clock.next(),
  });
}

/** Asks the server to fetch the page again. */
export async function fetchAgain(itemId: string): Promise<void> {
  await commit({ type: 'refetch', id: uuidv7(), itemId, stamp: clock.next() });
}
