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

/** What the index follows beside the items: what is written on them, and which copies are here. */
export interface Snapshot {
  written: readonly Note[];
  copyIds: readonly string[];
}

export async function snapshotOf(store: DeviceStore): Promise<Snapshot> {
  const [written, copyIds] = await Promise.all([store.notes.toArray(), store.copies.toCollection().primaryKeys()]);
  return { written, copyIds };
}

/** One account's items in an index, kept in step with the store: only what is new or changed is read and taken apart. */
export class FindableLibrary {
  readonly index: SearchIndex = createSearchIndex();
  readonly facts = new Map<string, ItemFacts>();
  items: ReadonlyMap<string, Item> = new Map();
  withoutText = 0;
  /** What each item stands in the index as. */
  readonly #keys = new Map<string, string>();
  /** Whether the text of each was here, and what was written on it, when it was put in. */
  readonly #marks = new Map<string, string>();
  #loaded = false;

  constructor(private readonly store: DeviceStore) {}

  /**
   * Brings the index in step with the store as it is now.
   *
   * @param items those that have not changed since the last time as the same objects: they are passed over
   */
  async update(items: ReadonlyMap<string, Item>, { written, copyIds }: Snapshot): Promise<void> {
    if (!this.#loaded) await this.#load();
    const here = new Set(copyIds);
    const notes = notesByItem(written);
    this.withoutText = 0;
    for (const [id, item] of items) {
      const copyId = item.capture.page?.copyId ?? null;
      const isHere = copyId !== null && here.has(copyId);
      const own = notes.get(id) ?? [];
      const mark = `${isHere} ${own.join(' ')}`;
      if (this.items.get(id) !== item || this.#marks.get(id) !== mark) {
        this.#marks.set(id, mark);
        const facts = factsOf(item, own.length > 0);
        if (facts) this.facts.set(id, facts);
        else this.facts.delete(id);
        if (facts) await this.#put(item, isHere ? copyId : null, own);
      }
      if (this.facts.has(id) && copyId !== null && !isHere) this.withoutText += 1;
    }
    for (const id of this.facts.keys()) if (!items.has(id)) this.facts.delete(id);
    this.items = items;
    for (const id of this.#keys.keys())
      if (!this.facts.has(id)) {
        this.index.remove(id);
        this.#keys.delete(id);
        this.#marks.delete(id);
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
