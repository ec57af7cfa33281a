import type { Item } from '@dorvel/core/model';
import { type PlainText, plainText, wordStarts } from '@dorvel/core/text';
import { useAccount } from '@/device/store/account';
import type { DeviceStore, KeptCopy } from '@/device/store/store';

/** So many texts lie at hand; the one that was not touched for longest makes room. */
const COPIES = 5;
/** Texts in memory, so that an item opens at once: those that the reader has just touched, the last one last. */
const copiesOf = new WeakMap<DeviceStore, Map<string, KeptCopy>>();

function copiesAtHand(store: DeviceStore): Map<string, KeptCopy> {
  const there = copiesOf.get(store) ?? new Map<string, KeptCopy>();
  copiesOf.set(store, there);
  return there;
}

/** @returns undefined when it does not lie at hand, or another item stands for it */
export function itemAtHand(store: DeviceStore | null, id: string): Item | undefined {
  const item = store?.itemsAtHand.get(id);
  return item?.capture.duplicateOf === null ? item : undefined;
}

/** @returns undefined when it does not lie at hand */
export function copyAtHand(store: DeviceStore | null, id: string | null | undefined): KeptCopy | undefined {
  return store && id ? copiesAtHand(store).get(id) : undefined;
}

/**
 * Reads a copy, and lays it at hand. One that has not changed stays the same object, so that nothing is drawn again for it.
 *
 * @returns null when it is not on this device
 */
export async function takeSnapshot(store: DeviceStore, id: string): Promise<KeptCopy | null> {
  const read = await store.copies.get(id);
  const copies = copiesAtHand(store);
  const known = copies.get(id);
  copies.delete(id);
  if (!read) return null;
  // A copy's text never changes under its id; its pictures may come later.
  const copy = known && known.textOnly === read.textOnly && known.bytes === read.bytes ? known : read;
  copies.set(id, copy);
  for (const oldest of [...copies.keys()].slice(0, -COPIES)) copies.delete(oldest);
  return copy;
}

/** Lays a copy of the present reader's at hand, for it is about to be opened. @returns null when it is not on this device */
export async function cacheSnapshotOf(id: string): Promise<KeptCopy | null> {
  const { store } = useAccount.getState();
  return store && (copyAtHand(store, id) ?? takeSnapshot(store, id));
}

const texts = new WeakMap<KeptCopy['tree'], { plain: PlainText; starts: readonly number[] }>();

/** A copy's plain text, and where its words start in it: worked out once for each tree. */
export function plainTextOf({ tree, language }: Pick<KeptCopy, 'tree' | 'language'>): {
  plain: PlainText;
  starts: readonly number[];
} {
  const known = texts.get(tree);
  if (known) return known;
  const plain = plainText(tree);
  const text = { plain, starts: wordStarts(plain.text, language) };
  texts.set(tree, text);
  return text;
}
