import Dexie from 'dexie';
import { type JournalEntry, unsentChanges } from './journal';
import type { DeviceStore } from './store';

/**
 * Makes changes that were noted down.
 *
 * @param refused told of what cannot be made
 * @throws what the store throws when it fails itself: they stay noted down until it can be written to
 */
export async function replay(
  into: DeviceStore,
  noted: readonly JournalEntry[],
  refused: (says: string) => void,
): Promise<void> {
  for (const { changes, written, done } of noted) {
    try {
      await into.commitAll(changes);
      written();
    } catch (error) {
      if (error instanceof Dexie.DexieError) throw error;
      refused(`A change that was cut off could not be made: ${String(error)}`);
      done();
    }
  }
}

/** That this store has been asked, since it was made, for what another in its place had not sent. */
const ASKED = 'asked-for-unsent';

/**
 * A store that has just been filled may stand in the place of one that was lost: browsers throw away what is damaged. What that one had
 * not sent is made again.
 *
 * @returns whether there is something to be sent because of it
 */
export async function replayUnsent(
  into: DeviceStore,
  accountId: string,
  refused: (says: string) => void,
): Promise<boolean> {
  if (await into.meta.get(ASKED)) return false;
  const unsent = unsentChanges(accountId);
  await replay(into, unsent, refused);
  await into.meta.put({ name: ASKED, value: 1 });
  return unsent.length > 0;
}

/** Sends what waits, and then keeps no more of it beside the store than was changed meanwhile. */
export async function sendAll(from: DeviceStore, accountId: string, send: () => Promise<void>): Promise<void> {
  // What is noted by now is in the outbox, or sent.
  const noted = unsentChanges(accountId);
  await send();
  if (await from.meta.get(ASKED)) for (const { done } of noted) done();
}
