import type { Copy, Item } from '@dorvel/core/model';
import { visit } from 'unist-util-visit';
import type { DeviceStore, KeptCopy } from '@/device/store/store';
import { api } from '@/device/sync/api';
import { PICTURE_CACHE } from './picture-cache';

/** Items whose copies are brought to the device ahead of reading, with their pictures. */
export function isWantedHere(item: Item): boolean {
  const stage = item.choices.stage.value;
  return item.capture.duplicateOf === null && item.capture.page !== null && (stage === 'inbox' || stage === 'queue');
}

/** Items of which the text alone is brought ahead: what is finished or kept, to find and relate it offline. */
function isTextWantedHere(item: Item): boolean {
  const stage = item.choices.stage.value;
  return item.capture.duplicateOf === null && item.capture.page !== null && (stage === 'finished' || stage === 'kept');
}

/** Texts without their pictures are small, but a library of many years is not: the latest of them are enough. */
const MAX_TEXTS = 1000;

/**
 * Brings the copies of Inbox and Queue to the device, pictures too; then the texts of what is finished or kept. Lets go
 * of copies whose item was let go.
 *
 * @param mayGoOn asked between two copies: a change of the reader's does not wait for a long download
 * @throws what api throws; what has arrived until then stays
 */
export async function downloadAhead(store: DeviceStore, mayGoOn: () => boolean): Promise<void> {
  const items = await store.allItems();
  const here = new Set(await store.copies.toCollection().primaryKeys());
  const textOnly = new Set(await store.copies.where('textOnly').equals(1).primaryKeys());
  const latestFirst = [...items].sort((a, b) => b.choices.raisedAt.value - a.choices.raisedAt.value);
  const texts = latestFirst.filter(isTextWantedHere).slice(0, MAX_TEXTS);
  for (const item of [...latestFirst.filter(isWantedHere), ...texts]) {
    if (!mayGoOn()) return;
    const copyId = item.capture.page?.copyId;
    if (!copyId) continue;
    const withPictures = isWantedHere(item);
    if (!here.has(copyId)) await keepCopy(store, item, copyId, withPictures);
    else if (withPictures && textOnly.has(copyId)) await keepPicturesOf(store, copyId);
  }
  // Earlier copies that are here stay: they are what a later one is compared with.
  const current = new Set(
    items
      .filter((item) => item.choices.stage.value !== 'let-go')
      .flatMap((item) => [item.capture.page?.copyId, ...item.capture.copies.map(({ id }) => id)]),
  );
  const stale = [...here].filter((id) => !current.has(id));
  if (stale.length > 0) await dropCopies(store, stale);
}

/** Fetches one copy, with its pictures unless only the text is wanted, and keeps it on the device. */
export async function keepCopy(store: DeviceStore, item: Item, copyId: string, withPictures = true): Promise<void> {
  const copy = await api.copy(copyId);
  const thumbnail = item.capture.page?.thumbnail;
  const pictures = withPictures
    ? [...picturesOf(copy.tree), ...(thumbnail ? [`/api/pictures/${thumbnail}.webp`] : [])]
    : [];
  const bytes = new Blob([JSON.stringify(copy)]).size + (await keepPictures(pictures));
  await store.copies.put({ ...copy, bytes, pictures, ...(withPictures ? {} : { textOnly: 1 as const }) });
}

/** Fetches the pictures of a copy that is here as text only. */
export async function keepPicturesOf(store: DeviceStore, copyId: string): Promise<void> {
  const copy = await store.copies.get(copyId);
  if (!copy?.textOnly) return;
  const { textOnly: _textOnly, ...text } = copy;
  const pictures = picturesOf(copy.tree);
  await store.copies.put({ ...text, pictures, bytes: copy.bytes + (await keepPictures(pictures)) });
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
  await store.profiles.bulkDelete([...ids]);
  const stillUsed = new Set<string>();
  await store.copies.each((copy: KeptCopy) => copy.pictures.forEach((picture) => stillUsed.add(picture)));
  const cache = await caches.open(PICTURE_CACHE);
  for (const picture of dropped.flatMap((copy) => copy.pictures))
    if (!stillUsed.has(picture)) await cache.delete(picture);
}

function picturesOf(tree: Copy['tree']): string[] {
  const found = new Set<string>();
  visit(tree, 'element', ({ tagName, properties: { src } }) => {
    if (tagName === 'img' && typeof src === 'string') found.add(src);
  });
  return [...found];
}
