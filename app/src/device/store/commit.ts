import { changeMaker, type Mutation } from '@dorvel/core/records';
import { v7 as uuidv7 } from 'uuid';
import { syncSoon } from '@/device/sync/sync-loop';
import { useAccount } from './account';
import { clock } from './clock';
import { journalChanges } from './journal';
import type { DeviceStore } from './store';

/** Makes changes as this device does. */
export const make = changeMaker({ clock, newId: uuidv7, now: Date.now });

/** The store of who has signed in. @throws Error when nobody has */
export function store(): DeviceStore {
  const { store: open } = useAccount.getState();
  if (!open) throw new Error('nobody has signed in on this device');
  return open;
}

/** Makes changes, all or none. */
export async function commit(...changes: readonly Mutation[]): Promise<void> {
  const { account } = useAccount.getState();
  const into = store();
  const noted = journalChanges(account?.id ?? '', changes);
  await into.commitAll(changes);
  noted.written();
  syncSoon();
}
