import Dexie from 'dexie';
import type { DeviceStore } from '@/device/store/store';

/** What the copies on this device are, without their texts. */
export interface CopiesHere {
  /** The bytes that each takes. */
  sizes: ReadonlyMap<string, number>;
  /** Those whose pictures were not brought. */
  textOnly: ReadonlySet<string>;
}

/**
 * By the name of a store, until one of its copies changes, in this tab or in another: the sizes are walked through one by one. Of
 * the very store, for one may be erased and another come by its name.
 */
const known = new Map<string, { of: DeviceStore; here: CopiesHere }>();
/** How often what is known was forgotten, so that what is being read meanwhile is not taken for new. */
let forgotten = 0;

function forget(name: string): void {
  known.delete(name);
  forgotten += 1;
}

Dexie.on('storagemutated', (parts) => {
  for (const part of Object.keys(parts)) {
    const [name, table] = part.replace('idb://', '').split('/');
    if (name && table === 'copies') forget(name);
  }
});

/** To be said by who changes copies, for what has been heard of a change by then is heard too late. */
export const copiesChanged = (store: DeviceStore): void => forget(store.name);

/** The copies that are here, and how large they are. */
export async function copiesHere(store: DeviceStore): Promise<CopiesHere> {
  const remembered = known.get(store.name);
  if (remembered?.of === store) return remembered.here;
  const before = forgotten;
  const bySize = store.copies.orderBy('bytes');
  const [ids, bytes, textOnly] = await Promise.all([
    bySize.primaryKeys(),
    bySize.keys(),
    store.copies.where('textOnly').equals(1).primaryKeys(),
  ]);
  const here = { sizes: new Map(ids.map((id, n) => [id, Number(bytes[n])])), textOnly: new Set(textOnly) };
  if (forgotten === before) known.set(store.name, { of: store, here });
  return here;
}
