import { setTimeout as sleep } from 'node:timers/promises';
import { type Item, tagKey, tagsOf } from '@dorvel/core/model';
import { type Related, suggestTags, type TagSuggestion } from '@dorvel/core/nearness';
import { type Closeness, closenessOf, createRelatedIndex, namedTags } from '@dorvel/core/relate';
import type { Database } from '../db/open';
import { eachItemChanged } from './changed-items';
import type { ProfileStore } from './profiles';

/** Which items of an account's library are near to one another; see core/relate. */
export interface RelatedLibrary {
  related(itemId: string, most: number): Promise<Related[]>;
  /** How near items are to others, taken together. */
  closeness(itemIds: readonly string[], others: readonly string[]): Promise<Closeness[]>;
  /** Tags for an item, from those of the items near to it. */
  suggestedTags(item: Item, most: number): Promise<TagSuggestion[]>;
}

/** So many of an item's neighbours have a say in its tags. */
const VOTERS = 8;

/** The copy by which an item is related to others; null when it was let go, is another one's, or has no text. */
export function copyRelatedBy({ capture, choices }: Item): string | null {
  const isThere = capture.duplicateOf === null && choices.stage.value !== 'let-go';
  return isThere ? (capture.page?.copyId ?? null) : null;
}

/**
 * A question is answered after so long, in milliseconds, by what is known until then: the first one of a large library would
 * take minutes, and what is known of it is kept.
 */
const PATIENCE_MS = 2000;

/** The index is kept in memory, and brought up to date at each question: only what has changed is read. */
export function relatedLibrary(
  database: Database,
  accountId: string,
  profiles: ProfileStore,
  patienceMs = PATIENCE_MS,
): RelatedLibrary {
  const index = createRelatedIndex();
  const copyOf = new Map<string, string>();
  const tagsById = new Map<string, readonly string[]>();
  let upTo = 0;
  /** What brings the index up to date now; two must not do it at once. */
  let last: Promise<void> = Promise.resolve();
  let waiting = 0;

  async function take(item: Item): Promise<void> {
    const copyId = copyRelatedBy(item);
    tagsById.set(item.id, copyId === null ? [] : tagsOf(item));
    if (copyId === (copyOf.get(item.id) ?? null)) return;
    const profiled = copyId === null ? null : await profiles.of(copyId);
    if (copyId === null || profiled === null) {
      index.remove(item.id);
      copyOf.delete(item.id);
      return;
    }
    index.put(item.id, profiled.profile);
    copyOf.set(item.id, copyId);
  }

  async function catchUp(): Promise<void> {
    upTo = await eachItemChanged(database, accountId, upTo, take);
  }

  const upToDate = async (): Promise<void> => {
    // One that waits looks at all that has changed until it begins: more of them would look at the same.
    if (waiting < 2) {
      waiting += 1;
      last = last.catch(() => undefined).then(catchUp);
      last.finally(() => (waiting -= 1)).catch(() => undefined);
    }
    await Promise.race([last, sleep(patienceMs, undefined, { ref: false })]);
  };

  return {
    async related(itemId, most) {
      await upToDate();
      return index.related(itemId, most);
    },
    async closeness(itemIds, others) {
      await upToDate();
      return closenessOf(index, itemIds, others);
    },
    async suggestedTags(item, most) {
      await upToDate();
      const own = new Set(tagsOf(item).map(tagKey));
      const tagsOfId = (id: string) => tagsById.get(id) ?? [];
      const inUse = [...new Set([...tagsById.values()].flat())];
      const named = namedTags(index.subjectsOf(item.id), inUse, item.capture.page?.language ?? null);
      return suggestTags({ related: index.related(item.id, VOTERS), tagsOf: tagsOfId, named, own, most });
    },
  };
}
