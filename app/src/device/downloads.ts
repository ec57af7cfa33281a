import type { Copy, Item } from '@dorvel/core/model';
import type { Element, Root } from 'hast';
import { api } from './api';
import { PICTURE_CACHE } from './picture-cache';
import type { DeviceStore, KeptCopy } from './store';

/** Items whose copies are brought to the device ahead of reading. */
export function isWantedHere(item: Item): boolean {
  const stage = item.choices.stage.value;
  return (
    item.capture.sameAs === null && item.capture.page !== null && (stage === 'inbox' || stage === 'queue')
  );
}

/**
 * Brings the copies of Inbox and Queue to the device, pictures too, and lets go of copies that a newer one has
 * replaced or whose item was let go.
 *
 * @param mayGoOn asked between two copies: a change of the reader's does not wait for a long download
 * @throws what api throws; what has arrived until then stays
 */
export async function downloadAhead(store: DeviceStore, mayGoOn: () => boolean): Promise<void> {
  const items = await store.items.toArray();
  const here = new Set(await store.copies.toCollection().primaryKeys());
  const wanted = items
    .filter(isWantedHere)
    .sort((a, b) => b.choices.raisedAt.value - a.choices.raisedAt.value);
  for (const item of wanted) {
    if (!mayGoOn()) return;
    const copyId = item.capture.page?.copyId;
    if (copyId && !here.has(copyId)) await keepCopy(store, item, copyId);
  }
  const current = new Set(
    items.filter((item) => item.choices.stage.value !== 'let-go').map((item) => item.capture.page?.copyId),
  );
  const stale = [...here].filter((id) => !current.has(id));
  if (stale.length > 0) await dropCopies(store, stale);
}

/** Fetches one copy with its pictures and keeps it on the device. */
export async function keepCopy(store: DeviceStore, item: Item, copyId: string): Promise<void> {
  const copy = await api.copy(copyId);
  const thumbnail = item.capture.page?.thumbnail;
  const pictures = [...picturesOf(copy.tree), ...(thumbnail ? [`/api/pictures/${thumbnail}.webp`] : [])];
  const bytes = new Blob([JSON.stringify(copy)]).size + (await keepPictures(pictures));
  await store.copies.put({ ...copy, bytes, pictures });
}

async function keepPictures(addresses: readonly string[]): Promise<number> {
  const cache = await caches.open(PICTURE_CACHE);
  let bytes = 0;
  for (const address of addresses) {
    if (!(await cache.match(address))) await cache.add(address);
    bytes += (await (await cache.match(address))?.blob())?.size ?? 0;
  }
  return bytes;
}

async function dropCopies(store: DeviceStore, ids: readonly string[]): Promise<void> {
  const dropped = (await store.copies.bulkGet([...ids])).filter((copy) => copy !== undefined);
  await store.copies.bulkDelete([...ids]);
  const stillUsed = new Set<string>();
  await store.copies.each((copy: KeptCopy) => copy.pictures.forEach((picture) => stillUsed.add(picture)));
  const cache = await caches.open(PICTURE_CACHE);
  for (const picture of dropped.flatMap((copy) => copy.pictures))
    if (!stillUsed.has(picture)) await cache.delete(picture);
}

function picturesOf(tree: Copy['tree']): string[] {
  const found = new Set<string>();
  const visit = (node: Root['children'][number] | Element['children'][number]) => {
    if (node.type !== 'element') return;
    if (node.tagName === 'img' && typeof node.properties.src === 'string') found.add(node.properties.src);
    node.children.forEach(visit);
  };
  tree.children.forEach(visit);
  return [...found];
}
