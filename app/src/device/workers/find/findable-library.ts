import type { Item, Note } from '@dorvel/core/model';
import {
  createSearchIndex,
  factsOf,
  findableKey,
  type ItemFacts,
  itemTerms,
  notesByItem,
  readText,
  type SearchIndex,
} from '@dorvel/core/search';
import type { DeviceStore } from '@/device/store/store';

/** What the index follows: all items, what is written on them, and which copies are here. */
interface Snapshot {
  items: readonly Item[];
  written: readonly Note[];
  copyIds: readonly string[];
}

export async function snapshotOf(store: DeviceStore): Promise<Snapshot> {
  const [items, written, copyIds] = await Promise.all([
    store.items.toArray(),
    store.notes.toArray(),
    store.copies.toCollection().primaryKeys(),
  ]);
  return { items, written, copyIds };
}

/** One account's items in an index, kept in step with the store: only what is new or changed is read and taken apart. */
export class FindableLibrary {
  readonly index: SearchIndex = createSearchIndex();
  readonly facts = new Map<string, ItemFacts>();
  readonly items = new Map<string, Item>();
  withoutText = 0;
  /** What each item stands in the index as. */
  readonly #keys = new Map<string, string>();
  #loaded = false;

  constructor(private readonly store: DeviceStore) {}

  /** Brings the index in step with the store as it is now. */
  async update({ items, written, copyIds }: Snapshot): Promise<void> {
    if (!this.#loaded) await this.#load();
    const here = new Set(copyIds);
    const notes = notesByItem(written);
    this.withoutText = 0;
    this.facts.clear();
    this.items.clear();
    for (const item of items) {
      const facts = factsOf(item, notes.has(item.id));
      if (!facts) continue;
      this.facts.set(item.id, facts);
      this.items.set(item.id, item);
      const copyId = item.capture.page?.copyId ?? null;
      const isHere = copyId !== null && here.has(copyId);
      if (copyId !== null && !isHere) this.withoutText += 1;
      await this.#put(item, isHere ? copyId : null, notes.get(item.id) ?? []);
    }
    for (const id of this.#keys.keys())
      if (!this.facts.has(id)) {
        this.index.remove(id);
        this.#keys.delete(id);
        await this.store.findables.delete(id);
      }
  }

  async #load(): Promise<void> {
    await this.store.findables.each(({ itemId, key, fields }) => {
      this.index.put(itemId, fields);
      this.#keys.set(itemId, key);
    });
    this.#loaded = true;
  }

  async #put(item: Item, copyId: string | null, notes: readonly string[]): Promise<void> {
    const key = findableKey(item, copyId, notes);
    if (this.#keys.get(item.id) === key) return;
    const copy = copyId === null ? undefined : await this.store.copies.get(copyId);
    const fields = itemTerms(item, copy ?? null, notes);
    this.index.put(item.id, fields);
    this.#keys.set(item.id, key);
    await this.store.findables.put({ itemId: item.id, key, fields });
  }

  /** The text of an item as it is read; null when it is not here. */
  async textOf(id: string): Promise<{ text: string; language: string | null } | null> {
    const item = this.items.get(id);
    const copyId = item?.capture.page?.copyId;
    const copy = copyId ? await this.store.copies.get(copyId) : undefined;
    return item && copy ? { text: readText(item, copy), language: copy.language } : null;
  }
}
