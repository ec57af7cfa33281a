import type { Item } from '@dorvel/core/model';
import { isLive } from '@dorvel/core/notes';
import { isToBeErased } from '@dorvel/core/queue';
import { cardKind, dossierKind, entryKind, highlightKind, noteKind } from '@dorvel/core/records';
import { and, eq, inArray, ne, or, sql } from 'drizzle-orm';
import type { Database, Transaction } from '../db/open';
import { copies, episodes, items, jobs, pictures, profiles, records } from '../db/schema';
import { dropFindable } from './findable';
import { libraryOf } from './library';
import { recordsIn } from './records';
import { readStoredItem } from './stored';

/** What was erased: from which libraries, and the pictures that none of them has any more. */
export interface Erased {
  accountIds: string[];
  items: number;
  /** Hashes of the files that nothing refers to now. */
  pictures: string[];
}

/**
 * Erases what was let go more than 30 days ago: texts, pictures, captures, and the item itself. What the reader marked or
 * wrote on, or put in a dossier, stays, with the title and the address that it leads back to; pictures in dossiers stay too.
 *
 * @param now milliseconds since 1970
 */
export async function eraseLetGo(database: Database, now: number): Promise<Erased> {
  const rows = await database.read
    .select({ accountId: items.accountId, record: items.record })
    .from(items)
    .where(sql`json_extract(${items.record}, '$.choices.stage.value') = 'let-go'`);
  const erased: Erased = { accountIds: [], items: 0, pictures: [] };
  for (const { accountId, record } of rows) {
    const item = readStoredItem(record);
    if (!item || !isToBeErased(item, now)) continue;
    const gone = await database.write((tx) => eraseOne(tx, accountId, item.id, now));
    if (!gone) continue;
    if (gone.isBare) await putBare(database, accountId, item.id, now);
    erased.items += 1;
    erased.pictures.push(...gone.pictures);
    if (!erased.accountIds.includes(accountId)) erased.accountIds.push(accountId);
  }
  const used = new Set(
    (await database.read.selectDistinct({ hash: pictures.hash }).from(pictures)).map(({ hash }) => hash),
  );
  erased.pictures = [...new Set(erased.pictures)].filter((hash) => !used.has(hash));
  return erased;
}

/**
 * Erases an item, or of one with the reader's own writing the texts. What it is is read again in the same transaction: it may
 * have been brought back a moment ago.
 *
 * @returns null when there was nothing to erase; `isBare` when the item itself stays
 */
async function eraseOne(
  tx: Transaction,
  accountId: string,
  itemId: string,
  now: number,
): Promise<{ isBare: boolean; pictures: string[] } | null> {
  const [row] = await tx
    .select({ record: items.record })
    .from(items)
    .where(and(eq(items.accountId, accountId), eq(items.id, itemId)));
  const item = row && readStoredItem(row.record);
  if (!item || !isToBeErased(item, now)) return null;
  const isBare = (await hasOwnWriting(tx, accountId, item)) || (await isInDossier(tx, accountId, item.id));
  const gone = await eraseTexts(tx, accountId, item);
  if (isBare && gone.copies === 0 && item.capture.copies.length === 0) return null;
  if (!isBare) await eraseItem(tx, accountId, item);
  return { isBare, pictures: gone.pictures };
}

async function hasOwnWriting(tx: Transaction, accountId: string, item: Item): Promise<boolean> {
  if ((await recordsIn(tx, accountId, noteKind, item.id)).some(isLive)) return true;
  const own = [
    ...(await recordsIn(tx, accountId, highlightKind, item.id)),
    ...(await recordsIn(tx, accountId, cardKind, item.id)),
  ];
  return own.some(({ choices }) => !choices.removed.value);
}

/** What stands in a dossier keeps its title and address: others may have been shown it. */
async function isInDossier(tx: Transaction, accountId: string, itemId: string): Promise<boolean> {
  const [entry] = await tx
    .select({ id: records.id })
    .from(records)
    .where(
      and(
        eq(records.accountId, accountId),
        eq(records.kind, entryKind.name),
        sql`json_extract(${records.record}, '$.part.itemId') = ${itemId}`,
        sql`json_extract(${records.record}, '$.choices.removed.value') = 0`,
      ),
    )
    .limit(1);
  return entry !== undefined;
}

/** Takes an item's copies and captures away. @returns how many copies, and the pictures that its library has no more use for */
async function eraseTexts(
  tx: Transaction,
  accountId: string,
  item: Item,
): Promise<{ copies: number; pictures: string[] }> {
  const ofItem = and(eq(copies.accountId, accountId), eq(copies.itemId, item.id));
  const gone = await tx.delete(copies).where(ofItem).returning({ id: copies.id, record: copies.record });
  const ids = gone.map(({ id }) => id);
  if (ids.length > 0)
    await tx.delete(profiles).where(and(eq(profiles.accountId, accountId), inArray(profiles.copyId, ids)));
  await tx.delete(jobs).where(and(eq(jobs.accountId, accountId), eq(jobs.itemId, item.id)));
  await tx.delete(episodes).where(and(eq(episodes.accountId, accountId), eq(episodes.itemId, item.id)));
  const named = JSON.stringify([
    gone.map(({ record }) => record),
    item.capture.page?.thumbnail ?? null,
    item.capture.page?.icon ?? null,
    item.capture.page?.pictures ?? [],
  ]);
  const unused: string[] = [];
  for (const hash of new Set(named.match(/\b[0-9a-f]{64}\b/g) ?? [])) {
    const mine = and(eq(pictures.accountId, accountId), eq(pictures.hash, hash));
    const [known] = await tx.select({ hash: pictures.hash }).from(pictures).where(mine);
    if (!known || (await isUsedElsewhere(tx, accountId, item.id, hash))) continue;
    await tx.delete(pictures).where(mine);
    unused.push(hash);
  }
  return { copies: gone.length, pictures: unused };
}

async function isUsedElsewhere(tx: Transaction, accountId: string, itemId: string, hash: string): Promise<boolean> {
  const named = `%${hash}%`;
  const [copy] = await tx
    .select({ id: copies.id })
    .from(copies)
    .where(and(eq(copies.accountId, accountId), sql`${copies.record} like ${named}`))
    .limit(1);
  if (copy) return true;
  const [item] = await tx
    .select({ id: items.id })
    .from(items)
    .where(and(eq(items.accountId, accountId), ne(items.id, itemId), sql`${items.record} like ${named}`))
    .limit(1);
  if (item) return true;
  // A picture in a dossier, or in front of one, stays when what it is from has gone.
  const [chosen] = await tx
    .select({ id: records.id })
    .from(records)
    .where(
      and(
        eq(records.accountId, accountId),
        inArray(records.kind, [dossierKind.name, entryKind.name]),
        sql`${records.record} like ${named}`,
      ),
    )
    .limit(1);
  return chosen !== undefined;
}

/** Leaves of an item its title and address. */
async function putBare(database: Database, accountId: string, itemId: string, now: number): Promise<void> {
  await libraryOf(database, accountId).change(async (write) => {
    const item = await write.item(itemId);
    // Brought back meanwhile: it is fetched again as any item without a text is.
    if (!item) return;
    const { capture } = item;
    if (!isToBeErased(item, now)) await write.enqueueCapture(itemId, now);
    await write.put({
      ...item,
      capture: {
        ...capture,
        revision: write.sequence,
        state: 'arrived',
        outcome: { code: 'erased' },
        nextTryAt: null,
        copies: [],
        page: capture.page && {
          ...capture.page,
          copyId: null,
          thumbnail: null,
          icon: null,
          pictures: [],
          excerpt: null,
        },
      },
    });
  });
}

/** Takes an item away, with those that only point at it and with what had been removed from it. */
async function eraseItem(tx: Transaction, accountId: string, item: Item): Promise<void> {
  await dropFindable(tx, accountId, item.id);
  await tx
    .delete(records)
    .where(
      and(
        eq(records.accountId, accountId),
        eq(records.itemId, item.id),
        inArray(records.kind, [highlightKind.name, noteKind.name, cardKind.name]),
      ),
    );
  await tx
    .delete(items)
    .where(and(eq(items.accountId, accountId), or(eq(items.id, item.id), eq(items.duplicateOf, item.id))));
}
