import { applyMutation, mergeItems } from '@dorvel/core/sync';
import type { Copy, Item, Mutation } from '@dorvel/core/model';
import Dexie, { type Table } from 'dexie';

/** A copy on this device, with the room it takes. */
export interface KeptCopy extends Copy {
  /** Of the text and its pictures. */
  bytes: number;
  pictures: string[];
}

interface Waiting {
  /** Order in which the changes were made. */
  place?: number;
  itemId: string;
  mutation: Mutation;
}

/**
 * What is on this device, for one account: the app reads from here and only from here. Every change is applied
 * here at once and waits in the outbox until the server has it.
 */
export class DeviceStore extends Dexie {
  items!: Table<Item, string>;
  copies!: Table<KeptCopy, string>;
  outbox!: Table<Waiting, number>;
  marks!: Table<{ name: string; value: string | number }, string>;

  constructor(accountId: string) {
    super(`dorvel-${accountId}`);
    this.version(1).stores({ items: 'id', copies: 'id, itemId', outbox: '++place, itemId', marks: 'name' });
  }

  /** Applies a change and puts it in the outbox, both or neither. */
  async commit(mutation: Mutation): Promise<void> {
    await this.transaction('rw', this.items, this.outbox, async () => {
      const changed = applyMutation(await this.items.get(mutation.itemId), mutation);
      if (!changed) throw new Error(`no item ${mutation.itemId} on this device`);
      await this.items.put(changed);
      if (mutation.type === 'progress') await this.#dropOlderProgress(mutation.itemId);
      await this.outbox.add({ itemId: mutation.itemId, mutation });
    });
  }

  /** A later place stands for an earlier one that was never sent: furthest only grows, and the last position wins. */
  async #dropOlderProgress(itemId: string): Promise<void> {
    await this.outbox
      .where('itemId')
      .equals(itemId)
      .and(({ mutation }) => mutation.type === 'progress')
      .delete();
  }

  /**
   * Takes in what the server sent; changes that still wait in the outbox are part of the local state already.
   *
   * @returns ids of the items that now stand for one that this device had as an item of its own
   */
  async receive(items: readonly Item[], cursor: number): Promise<string[]> {
    return this.transaction('rw', this.items, this.marks, async () => {
      const standing: string[] = [];
      for (const item of items) {
        const known = await this.items.get(item.id);
        await this.items.put(known ? mergeItems(known, item) : item);
        if (known?.capture.sameAs === null && item.capture.sameAs) standing.push(item.capture.sameAs);
      }
      await this.marks.put({ name: 'cursor', value: cursor });
      return standing;
    });
  }

  async cursor(): Promise<number> {
    const mark = await this.marks.get('cursor');
    return typeof mark?.value === 'number' ? mark.value : 0;
  }
}
