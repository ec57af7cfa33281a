import type { Item } from '@dorvel/core/model';
import { plainText, wordStarts, type PlainText } from '@dorvel/core/text';
import { useAccount } from './account';
import type { DeviceStore, KeptCopy } from './store';

/**
 * What lies in memory so that an item opens at once, without waiting for the device's store: items as the lists last had
 * them, and the texts that the reader has just touched.
 */
interface AtHand {
  items: ReadonlyMap<string, Item>;
  /** The one touched last is last. */
  copies: Map<string, KeptCopy>;
}

/** So many texts lie at hand; the one that was not touched for longest makes room. */
const COPIES = 5;
const byStore = new WeakMap<DeviceStore, AtHand>();

function atHand(store: DeviceStore): AtHand {
  const there = byStore.get(store) ?? { items: new Map(), copies: new Map() };
  byStore.set(store, there);
  return there;
}

/** Lays the items that a list has read at hand. */
export function layAtHand(store: DeviceStore, items: readonly Item[]): void {
  atHand(store).items = new Map(items.map((item) => [item.id, item]));
}

/** @returns undefined when no list has read it */
export function itemAtHand(store: DeviceStore | null, id: string): Item | undefined {
  return store ? atHand(store).items.get(id) : undefined;
}

/** @returns undefined when it does not lie at hand */
export function copyAtHand(store: DeviceStore | null, id: string | null | undefined): KeptCopy | undefined {
  return store && id ? atHand(store).copies.get(id) : undefined;
}

/**
 * Reads a copy, and lays it at hand. One that has not changed stays the same object, so that nothing is drawn anew for it.
 *
 * @returns null when it is not on this device
 */
export async function takeCopy(store: DeviceStore, id: string): Promise<KeptCopy | null> {
  const read = await store.copies.get(id);
  const { copies } = atHand(store);
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
export async function layCopyAtHand(id: string): Promise<KeptCopy | null> {
  const { store } = useAccount.getState();
  return store && (copyAtHand(store, id) ?? takeCopy(store, id));
}

const texts = new WeakMap<KeptCopy['tree'], { plain: PlainText; starts: readonly number[] }>();

/** A copy's plain text, and where its words start in it: worked out once for each tree. */
export function textOf({ tree, language }: Pick<KeptCopy, 'tree' | 'language'>): {
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
