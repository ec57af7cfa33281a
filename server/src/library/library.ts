import {
  Activity,
  Copy,
  Feed,
  type Item,
  type Card,
  type GivenText,
  type Highlight,
  type SavedSearch,
  type WrittenNote,
} from '@dorvel/core/model';
import { mergeActivities } from '@dorvel/core/sync';
import { and, asc, desc, eq, gt, inArray, isNull, lte, ne, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { feedWriter } from './feeds';
import { putFindable, type FreshTerms } from './findable';
import type { Database, Transaction } from '../db/open';
import { readRecord, recordsIn, recordWriter, type RecordKind } from './records';
import { accounts, activities, copies, feeds, items, jobs, pictures, records } from '../db/schema';
import { readStored, readStoredItem, readStoredItems, storable, storableItem } from './stored';

const PULL_PAGE = 200;

/** The tables whose rows travel to the devices. */
type Sequenced = typeof items | typeof activities | typeof feeds | typeof records;

/** What changed in a library, up to a cursor to go on from. */
interface Changes {
  items: Item[];
  activities: Activity[];
  feeds: Feed[];
  highlights: Highlight[];
  searches: SavedSearch[];
  notes: WrittenNote[];
  cards: Card[];
  cursor: number;
  more: boolean;
  /** How many records there were that cannot be read. */
  unread: number;
}

/**
 * One account's library. There is no way to reach a record without an account: every function that reads or
 * writes one is made here, for one account, and names it in each condition.
 */
export function libraryOf(database: Database, accountId: string) {
  const mine = {
    item: eq(items.accountId, accountId),
    copy: eq(copies.accountId, accountId),
    picture: eq(pictures.accountId, accountId),
  };
  return {
    accountId,

    /**
     * What changed since a sequence number, in the order of change. A page holds about PULL_PAGE records of a kind,
     * and always all that changed under its last sequence number: a push of many changes is never cut in two.
     */
    async changesAfter(after: number): Promise<Changes> {
      const lastOfPage = async (table: Sequenced) => {
        const rows = await database.read
          .select({ sequence: table.sequence })
          .from(table)
          .where(and(eq(table.accountId, accountId), gt(table.sequence, after)))
          .orderBy(asc(table.sequence))
          .limit(PULL_PAGE + 1);
        return { last: (rows[PULL_PAGE - 1] ?? rows.at(-1))?.sequence, more: rows.length > PULL_PAGE };
      };
      const pages = await Promise.all([items, activities, feeds, records].map(lastOfPage));
      const cut = pages.filter(({ more }) => more).map(({ last }) => last ?? after);
      const cursor =
        cut.length > 0 ? Math.min(...cut) : Math.max(after, ...pages.map(({ last }) => last ?? 0));
      const changed = async (table: Sequenced) =>
        database.read
          .select({ record: table.record })
          .from(table)
          .where(and(eq(table.accountId, accountId), gt(table.sequence, after), lte(table.sequence, cursor)))
          .orderBy(asc(table.sequence));
      const small = await database.read
        .select({ kind: records.kind, record: records.record })
        .from(records)
        .where(
          and(eq(records.accountId, accountId), gt(records.sequence, after), lte(records.sequence, cursor)),
        )
        .orderBy(asc(records.sequence));
      let unread = 0;
      const readable = <Kind>(rows: readonly { record: unknown }[], read: (record: unknown) => Kind | null) =>
        rows.flatMap(({ record }) => {
          const found = read(record);
          if (found === null) unread++;
          return found ?? [];
        });
      const ofKind = <Kind extends RecordKind>(kind: Kind) =>
        readable(
          small.filter((row) => row.kind === kind),
          (record) => readRecord(kind, record),
        );
      const all = {
        items: readable(await changed(items), readStoredItem),
        activities: readable(await changed(activities), (record) => readStored(Activity, record)),
        feeds: readable(await changed(feeds), (record) => readStored(Feed, record)),
        highlights: ofKind('highlight'),
        searches: ofKind('search'),
        notes: ofKind('note'),
        cards: ofKind('card'),
      };
      return { ...all, cursor, more: cut.length > 0, unread };
    },

    async item(id: string): Promise<Item | undefined> {
      const [row] = await database.read
        .select({ record: items.record })
        .from(items)
        .where(and(mine.item, eq(items.id, id)));
      return (row && readStoredItem(row.record)) ?? undefined;
    },

    /** The item that stands for an address: the one saved first. */
    async itemAt(addressKey: string): Promise<Item | undefined> {
      const [row] = await database.read
        .select({ record: items.record })
        .from(items)
        .where(and(mine.item, eq(items.addressKey, addressKey), isNull(items.sameAs)))
        .orderBy(asc(items.id))
        .limit(1);
      return (row && readStoredItem(row.record)) ?? undefined;
    },

    /** The items that were changed last, the latest first. */
    async changedLast(most: number): Promise<Item[]> {
      const rows = await database.read
        .select({ record: items.record })
        .from(items)
        .where(and(mine.item, isNull(items.sameAs)))
        .orderBy(desc(items.sequence))
        .limit(most);
      return readStoredItems(rows);
    },

    /** What is marked in an item. */
    async highlightsOf(itemId: string): Promise<Highlight[]> {
      return (await recordsIn(database.read, accountId, 'highlight', itemId)).filter(
        ({ choices }) => !choices.removed.value,
      );
    },

    /** Addresses, in canonical form, of the items in which something is marked. */
    async markedAddresses(): Promise<string[]> {
      const rows = await database.read
        .selectDistinct({ addressKey: items.addressKey })
        .from(records)
        .innerJoin(items, and(mine.item, eq(items.id, records.itemId)))
        .where(
          and(
            eq(records.accountId, accountId),
            eq(records.kind, 'highlight'),
            sql`json_extract(${records.record}, '$.choices.removed.value') = 0`,
          ),
        );
      return rows.map(({ addressKey }) => addressKey);
    },

    /** A rank below all that is in the Queue. */
    async queueEnd(): Promise<number> {
      const [row] = await database.read
        .select({ last: sql<number | null>`max(json_extract(${items.record}, '$.choices.queueRank.value'))` })
        .from(items)
        .where(
          and(
            mine.item,
            isNull(items.sameAs),
            sql`json_extract(${items.record}, '$.choices.stage.value') = 'queue'`,
          ),
        );
      return Math.max(0, row?.last ?? 0) + 1;
    },

    async copy(id: string): Promise<Copy | undefined> {
      const [row] = await database.read
        .select({ record: copies.record })
        .from(copies)
        .where(and(mine.copy, eq(copies.id, id)));
      return (row && readStored(Copy, row.record)) ?? undefined;
    },

    async ownsPicture(hash: string): Promise<boolean> {
      const rows = await database.read
        .select({ hash: pictures.hash })
        .from(pictures)
        .where(and(mine.picture, eq(pictures.hash, hash)));
      return rows.length > 0;
    },

    /** Changes the library in one transaction that has one new sequence number. */
    change<Result>(work: (write: LibraryWriter) => Promise<Result>): Promise<Result> {
      return database.write(async (tx) => work(await libraryWriter(tx, accountId)));
    },
  };
}
export type Library = ReturnType<typeof libraryOf>;

async function libraryWriter(tx: Transaction, accountId: string) {
  const [account] = await tx
    .update(accounts)
    .set({ sequence: sql`${accounts.sequence} + 1` })
    .where(eq(accounts.id, accountId))
    .returning({ sequence: accounts.sequence });
  if (!account) throw new Error('no such account');
  const { sequence } = account;
  /** Of copies stored in this change, by item: their words. */
  const freshTerms = new Map<string, FreshTerms>();
  const mine = eq(items.accountId, accountId);
  const parse = (row: { record: unknown } | undefined) => (row && readStoredItem(row.record)) ?? undefined;
  const small = recordWriter(tx, accountId, sequence);
  return {
    sequence,
    ...feedWriter(tx, accountId, sequence),
    ...small,

    async item(id: string): Promise<Item | undefined> {
      return parse(
        (
          await tx
            .select({ record: items.record })
            .from(items)
            .where(and(mine, eq(items.id, id)))
        )[0],
      );
    },

    /** The item that stands for an address, other than `exceptId`: the one saved first. */
    async itemAt(addressKey: string, exceptId: string): Promise<Item | undefined> {
      const rows = await tx
        .select({ record: items.record })
        .from(items)
        .where(and(mine, eq(items.addressKey, addressKey), isNull(items.sameAs), ne(items.id, exceptId)))
        .orderBy(asc(items.id))
        .limit(1);
      return parse(rows[0]);
    },

    async inQueue(): Promise<Item[]> {
      const rows = await tx
        .select({ record: items.record })
        .from(items)
        .where(
          and(
            mine,
            isNull(items.sameAs),
            sql`json_extract(${items.record}, '$.choices.stage.value') = 'queue'`,
          ),
        );
      return readStoredItems(rows);
    },

    /** Keeps a highlight, and makes its item findable by what is written on it. */
    async putHighlight(highlight: Highlight): Promise<void> {
      await small.putRecord('highlight', highlight);
      await this.findAnew(highlight.itemId);
    },

    /** Keeps a note, and makes its item findable by it. */
    async putNote(note: WrittenNote): Promise<void> {
      await small.putRecord('note', note);
      if (note.itemId !== null) await this.findAnew(note.itemId);
    },

    async findAnew(itemId: string): Promise<void> {
      const item = await this.item(itemId);
      if (item) await putFindable(tx, accountId, item);
    },

    /** @throws Unstorable when the reader's own words do not fit; those of others are cut */
    async put(given: Item): Promise<void> {
      const item = storableItem(given);
      const row = {
        accountId,
        id: item.id,
        sequence,
        addressKey: item.capture.addressKey,
        sameAs: item.capture.sameAs,
        record: item,
      };
      await tx
        .insert(items)
        .values(row)
        .onConflictDoUpdate({ target: [items.accountId, items.id], set: row });
      await putFindable(tx, accountId, item, freshTerms.get(item.id));
    },

    /** Keeps a sitting; of two states of one, the longer. */
    async putActivity(activity: Activity): Promise<void> {
      const [known] = await tx
        .select({ record: activities.record })
        .from(activities)
        .where(and(eq(activities.accountId, accountId), eq(activities.id, activity.id)));
      const before = known && readStored(Activity, known.record);
      const record = storable(Activity, before ? mergeActivities(before, activity) : activity);
      const row = { accountId, id: activity.id, sequence, record };
      await tx
        .insert(activities)
        .values(row)
        .onConflictDoUpdate({ target: [activities.accountId, activities.id], set: row });
    },

    /**
     * @param terms the words of its text, see searchTerms, where they were made already; null when it is not to be found
     *   by them
     */
    async putCopy(copy: Copy, terms?: string | null): Promise<void> {
      if (terms !== undefined) freshTerms.set(copy.itemId, { copyId: copy.id, terms: terms ?? '' });
      await tx
        .insert(copies)
        .values({ accountId, id: copy.id, itemId: copy.itemId, madeAt: copy.madeAt, record: copy });
    },

    async putPictures(made: readonly { hash: string; bytes: number }[]): Promise<void> {
      if (made.length === 0) return;
      await tx
        .insert(pictures)
        .values(made.map(({ hash, bytes }) => ({ accountId, hash, bytes })))
        .onConflictDoNothing();
    },

    /**
     * Puts a capture into the row of jobs, unless one waits for the item already.
     *
     * @param given a text to take instead of the page; a capture that is under way does not stand in its way
     */
    async enqueueCapture(itemId: string, now: number, given: GivenText | null = null): Promise<void> {
      const open = await tx
        .select({ id: jobs.id, state: jobs.state })
        .from(jobs)
        .where(
          and(
            eq(jobs.accountId, accountId),
            eq(jobs.itemId, itemId),
            inArray(jobs.state, ['waiting', 'running']),
          ),
        );
      const waiting = open.find(({ state }) => state === 'waiting');
      if (waiting)
        await tx
          .update(jobs)
          .set({ runAt: now, attempts: 0, crashes: 0, ...(given ? { given } : {}) })
          .where(eq(jobs.id, waiting.id));
      else if (open.length === 0 || given)
        await tx.insert(jobs).values({
          id: uuidv7(),
          accountId,
          itemId,
          state: 'waiting',
          given,
          runAt: now,
          createdAt: now,
          updatedAt: now,
        });
    },

    async endJob(id: string, state: 'done' | 'failed', now: number): Promise<void> {
      await tx.update(jobs).set({ state, given: null, updatedAt: now }).where(eq(jobs.id, id));
    },

    async postponeJob(id: string, runAt: number, now: number): Promise<void> {
      await tx.update(jobs).set({ state: 'waiting', runAt, updatedAt: now }).where(eq(jobs.id, id));
    },

    /** Has a job wait among the long ones; what was tried so far does not count. */
    async toLongLane(id: string, now: number): Promise<void> {
      await tx
        .update(jobs)
        .set({ state: 'waiting', lane: 'long', attempts: 0, runAt: now, updatedAt: now })
        .where(eq(jobs.id, id));
    },
  };
}
export type LibraryWriter = Awaited<ReturnType<typeof libraryWriter>>;
