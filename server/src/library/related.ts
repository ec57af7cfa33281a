import { type Item, tagKey, tagsOf } from '@dorvel/core/model';
import { createRelatedIndex, type Related, suggestTags, type TagSuggestion } from '@dorvel/core/relate';
import { PROFILE_VERSION, TermProfile } from '@dorvel/core/terms';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import type { Database } from '../db/open';
import { copies, items, profiles } from '../db/schema';
import type { Profiler } from './profiler';
import { readStoredItem } from './stored';

/** Which items of an account's library are near to one another; see core/relate. */
export interface RelatedLibrary {
  related(itemId: string, most: number): Promise<Related[]>;
  /** Tags for an item, from those of the items near to it. */
  suggestedTags(item: Item, most: number): Promise<TagSuggestion[]>;
}

/** So many of an item's neighbours have a say in its tags. */
const VOTERS = 8;

/** The index is kept in memory, and brought up to date at each question: only what has changed is read. */
export function relatedLibrary(
  database: Database,
  accountId: string,
  profiler: Pick<Profiler, 'profile'>,
): RelatedLibrary {
  const index = createRelatedIndex();
  const copyOf = new Map<string, string>();
  const tagsById = new Map<string, readonly string[]>();
  let upTo = 0;
  /** Questions wait for one another: two must not bring the index up to date at once. */
  let last: Promise<void> = Promise.resolve();

  async function profileOf(copyId: string): Promise<TermProfile | null> {
    const [known] = await database.read
      .select({ version: profiles.version, profile: profiles.profile })
      .from(profiles)
      .where(and(eq(profiles.accountId, accountId), eq(profiles.copyId, copyId)));
    const kept = known?.version === PROFILE_VERSION && TermProfile.safeParse(known.profile).data;
    if (kept) return kept;
    // As text: a long copy takes long to parse, which is the profiler's to do.
    const [row] = await database.read
      .select({ record: sql<string>`${copies.record}` })
      .from(copies)
      .where(and(eq(copies.accountId, accountId), eq(copies.id, copyId)));
    if (!row) return null;
    const profile = await profiler.profile(row.record);
    const made = { accountId, copyId, version: PROFILE_VERSION, profile };
    await database.write((tx) =>
      tx
        .insert(profiles)
        .values(made)
        .onConflictDoUpdate({ target: [profiles.accountId, profiles.copyId], set: made }),
    );
    return profile;
  }

  async function take(item: Item): Promise<void> {
    const isThere = item.capture.duplicateOf === null && item.choices.stage.value !== 'let-go';
    const copyId = isThere ? (item.capture.page?.copyId ?? null) : null;
    tagsById.set(item.id, isThere ? tagsOf(item) : []);
    if (copyId === (copyOf.get(item.id) ?? null)) return;
    const profile = copyId === null ? null : await profileOf(copyId);
    if (copyId === null || profile === null) {
      index.remove(item.id);
      copyOf.delete(item.id);
      return;
    }
    index.put(item.id, profile);
    copyOf.set(item.id, copyId);
  }

  async function catchUp(): Promise<void> {
    const changed = await database.read
      .select({ sequence: items.sequence, record: items.record })
      .from(items)
      .where(and(eq(items.accountId, accountId), gt(items.sequence, upTo)))
      .orderBy(asc(items.sequence));
    for (const { sequence, record } of changed) {
      const item = readStoredItem(record);
      if (item) await take(item);
      upTo = sequence;
    }
  }

  const upToDate = (): Promise<void> => {
    const next = last.then(catchUp);
    last = next.catch(() => undefined);
    return next;
  };

  return {
    async related(itemId, most) {
      await upToDate();
      return index.related(itemId, most);
    },
    async suggestedTags(item, most) {
      await upToDate();
      const own = new Set(tagsOf(item).map(tagKey));
      return suggestTags(index.related(item.id, VOTERS), (id) => tagsById.get(id) ?? [], own, most);
    },
  };
}
