import { ServerProblem } from '@dorvel/core/client';
import type { Copy, Item, Stage } from '@dorvel/core/model';
import { byRaised } from '@dorvel/core/queue';
import { visit } from 'unist-util-visit';
import { itemsByStage, type ShownItems } from '@/device/store/items';
import type { DeviceStore, KeptCopy } from '@/device/store/store';
import { api } from '@/device/sync/api';
import { copiesChanged, type CopiesHere, copiesHere } from './copies-here';
import { PICTURE_CACHE } from './picture-cache';

const isIn = ({ choices }: Item, ...stages: readonly Stage[]): boolean => stages.includes(choices.stage.value);
const hasPage = ({ capture }: Item): boolean => capture.page !== null;

/** Items whose copies are brought to the device ahead of reading, with their pictures. */
export function isWantedHere(item: Item): boolean {
  return item.capture.duplicateOf === null && hasPage(item) && isIn(item, 'inbox', 'queue');
}

/** Items that are nothing but pictures: without them there would be nothing here of what is kept. */
const isPictures = ({ capture }: Item): boolean => (capture.page?.pictures.length ?? 0) > 0;

/** Texts without their pictures are small, but a library of many years is not: the latest of them are enough. */
const MAX_TEXTS = 1000;

/** What a text with its pictures takes as long as nobody knows, in bytes. */
const USUAL_BYTES = 60_000;
/** What was brought goes again only when it stands so far beyond the room: else it would come and go by turns. */
const SLACK_BYTES = 2_000_000;

/** What the reader opened is not taken from under their eyes. */
const openedHere = new Set<string>();
/** Sizes of what was too large, so that it is not fetched again each time. */
const sizesKnown = new Map<string, number>();

const SHELVES = ['inbox', 'queue', 'finished', 'kept'] as const;

/** What was there when all that is wanted was here: while that holds, nothing is to be brought and nothing to go. */
const settled = new WeakMap<DeviceStore, { items: ShownItems['inStage']; here: CopiesHere; room: number }>();

/** What became of bringing texts ahead. */
interface Brought {
  /** Whether the device has no more room, however much it may have. */
  isDeviceFull: boolean;
}

/**
 * Brings the copies of Inbox and Queue to the device, pictures too; then the texts of what is finished or kept, the latest first, as
 * far as the room goes. Lets go of copies whose item was let go, and of those that the room is too small for: earlier copies first,
 * then what was finished long ago, then what has lain longest.
 *
 * @param mayGoOn asked between two copies: a change of the reader's does not wait for a long download
 * @param room for texts and pictures, in bytes
 * @throws what api throws; what has arrived until then stays
 */
export async function downloadAhead(store: DeviceStore, mayGoOn: () => boolean, room = Infinity): Promise<Brought> {
  const [items, here] = [await itemsByStage(store), await copiesHere(store)];
  const last = settled.get(store);
  if (last?.here === here && last.room === room && SHELVES.every((on) => haveSameCopies(last.items[on], items[on]))) {
    // What is compared next time are the same objects then.
    last.items = items;
    return { isDeviceFull: false };
  }
  const { inbox, queue, finished, kept } = items;
  const { sizes, textOnly } = here;
  const ahead = [...inOneOrder(inbox, queue), ...inOneOrder(finished, kept, MAX_TEXTS)];
  const stays = new Set<string>();
  let [taken, isDeviceFull] = [0, false];
  const fits = (bytes: number, slack: number) => taken + bytes <= room + slack;
  for (const item of ahead) {
    if (!mayGoOn()) return { isDeviceFull };
    const copyId = item.capture.page?.copyId;
    if (!copyId) continue;
    const withPictures = isWantedHere(item) || isPictures(item);
    let bytes = sizes.get(copyId);
    const needs = bytes === undefined || (withPictures && textOnly.has(copyId));
    if (!fits(bytes ?? sizesKnown.get(copyId) ?? USUAL_BYTES, bytes === undefined ? 0 : SLACK_BYTES)) continue;
    try {
      if (needs && !isDeviceFull)
        bytes = await (bytes === undefined
          ? bringCopy(store, item, copyId, withPictures)
          : bringPicturesOf(store, copyId));
    } catch (error) {
      if (!isOutOfRoom(error)) throw error;
      isDeviceFull = true;
    }
    if (bytes === undefined) continue;
    sizesKnown.set(copyId, bytes);
    taken += bytes;
    stays.add(copyId);
  }
  // Earlier copies that are here stay while there is room: they are what a later one is compared with.
  const others = new Set([...sizes.keys()].filter((id) => !stays.has(id)));
  const withOthers =
    others.size === 0
      ? []
      : SHELVES.flatMap((on) => items[on].filter((item) => copyIdsOf(item).some((id) => others.has(id))));
  for (const item of withOthers.sort(byRaised)) {
    for (const copyId of copyIdsOf(item)) {
      const bytes = sizes.get(copyId);
      if (bytes === undefined || stays.has(copyId)) continue;
      if (!openedHere.has(copyId) && !fits(bytes, SLACK_BYTES)) continue;
      taken += bytes;
      stays.add(copyId);
    }
  }
  const stale = [...sizes.keys()].filter((id) => !stays.has(id));
  if (stale.length > 0) await dropCopies(store, stale);
  if (!isDeviceFull) settled.set(store, { items, here: await copiesHere(store), room });
  return { isDeviceFull };
}

/** Whether the items of a stage ask for the same copies as before, in the same order; most are the same objects still. */
function haveSameCopies(before: readonly Item[], now: readonly Item[]): boolean {
  return (
    before.length === now.length &&
    now.every((item, n) => {
      const was = before[n];
      return item === was || (was !== undefined && copiesOf(item) === copiesOf(was));
    })
  );
}

const copiesOf = (item: Item): string =>
  JSON.stringify([item.choices.raisedAt.value, item.capture.page?.pictures, copyIdsOf(item)]);

/** The copy that is read, then the earlier ones. */
const copyIdsOf = ({ capture: { page, copies } }: Item): string[] => [
  ...(page?.copyId ? [page.copyId] : []),
  ...copies.map(({ id }) => id),
];

/** What has a page of two stages, the newest save first. @param count the first of them */
function inOneOrder(one: readonly Item[], other: readonly Item[], count = Infinity): Item[] {
  const merged: Item[] = [];
  // Those of each are in order already.
  for (let [n, m] = [0, 0]; merged.length < count;) {
    const [first, second] = [one[n], other[m]];
    const isFirst = first !== undefined && (second === undefined || byRaised(first, second) < 0);
    const next = isFirst ? first : second;
    if (!next) break;
    if (isFirst) n += 1;
    else m += 1;
    if (hasPage(next)) merged.push(next);
  }
  return merged;
}

/** True when the device has no room left, for its store or for pictures (Storage Standard: QuotaExceededError). */
function isOutOfRoom(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = 'inner' in at ? at.inner : at.cause)
    if (at.name === 'QuotaExceededError') return true;
  return false;
}

/** Fetches one copy that the reader asks for, with its pictures, and keeps it on the device. */
export async function keepCopy(store: DeviceStore, item: Item, copyId: string): Promise<void> {
  openedHere.add(copyId);
  await bringCopy(store, item, copyId, true);
}

/** @returns the bytes that it takes */
async function bringCopy(store: DeviceStore, item: Item, copyId: string, withPictures: boolean): Promise<number> {
  const copy = await api.copy(copyId);
  const thumbnail = item.capture.page?.thumbnail;
  const pictures = withPictures
    ? [...picturesOf(copy.tree), ...(thumbnail ? [addressOf(thumbnail)] : []), ...smallOnes(item)]
    : [];
  const bytes = new Blob([JSON.stringify(copy)]).size + (await keepPictures(pictures));
  await store.copies.put({ ...copy, bytes, pictures, ...(withPictures ? {} : { textOnly: 1 as const }) });
  copiesChanged(store);
  return bytes;
}

/** Fetches the pictures of a copy that is here as text only, as the reader opens it. */
export async function keepPicturesOf(store: DeviceStore, copyId: string): Promise<void> {
  openedHere.add(copyId);
  await bringPicturesOf(store, copyId);
}

/** @returns the bytes that it takes with them */
async function bringPicturesOf(store: DeviceStore, copyId: string): Promise<number> {
  const copy = await store.copies.get(copyId);
  if (!copy?.textOnly) return copy?.bytes ?? 0;
  const { textOnly: _textOnly, ...text } = copy;
  const pictures = picturesOf(copy.tree);
  const bytes = copy.bytes + (await keepPictures(pictures));
  await store.copies.put({ ...text, pictures, bytes });
  copiesChanged(store);
  return bytes;
}

async function keepPictures(addresses: readonly string[]): Promise<number> {
  const cache = await caches.open(PICTURE_CACHE);
  let bytes = 0;
  for (const address of addresses) {
    if (!(await cache.match(address))) await bringPicture(cache, address);
    bytes += (await (await cache.match(address))?.blob())?.size ?? 0;
  }
  return bytes;
}

async function bringPicture(cache: Cache, address: string): Promise<void> {
  try {
    const picture = await api.picture(address);
    await cache.put(address, new Response(picture, { headers: { 'content-type': picture.type } }));
  } catch (error) {
    // One that the server does not have is no reason to bring nothing else.
    if (!(error instanceof ServerProblem && error.status === 404)) throw error;
  }
}

async function dropCopies(store: DeviceStore, ids: readonly string[]): Promise<void> {
  const dropped = (await store.copies.bulkGet([...ids])).filter((copy) => copy !== undefined);
  await store.copies.bulkDelete([...ids]);
  copiesChanged(store);
  await store.profiles.bulkDelete([...ids]);
  const stillUsed = new Set<string>();
  await store.copies.each((copy: KeptCopy) => copy.pictures.forEach((picture) => stillUsed.add(picture)));
  const cache = await caches.open(PICTURE_CACHE);
  for (const picture of dropped.flatMap((copy) => copy.pictures))
    if (!stillUsed.has(picture)) await cache.delete(picture);
}

const addressOf = (hash: string) => `/api/pictures/${hash}.webp`;
/** What lists and the wall show of an item: its pictures in the size in which many stand beside each other, and the icon of its site. */
const smallOnes = ({ capture: { page } }: Item): string[] =>
  [...(page?.pictures ?? []).map(({ small }) => small), ...(page?.icon ? [page.icon] : [])].map(addressOf);

function picturesOf(tree: Copy['tree']): string[] {
  const found = new Set<string>();
  visit(tree, 'element', ({ tagName, properties: { src } }) => {
    if (tagName === 'img' && typeof src === 'string') found.add(src);
  });
  return [...found];
}
