import { inOrder } from '@dorvel/core/dossier';
import { Copy, type GivenText, type Highlight, type Item, type Note } from '@dorvel/core/model';
import {
  type Change,
  dossierKind,
  entryKind,
  feedKind,
  highlightKind,
  itemKind,
  type Kind,
  noteKind,
  type Records,
  REGISTRY,
  type Registry,
  type Stored,
} from '@dorvel/core/records';
import { and, asc, desc, eq, gt, inArray, isNull, lt, lte, ne, sql, sum } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Database, Transaction } from '../db/open';
import { accounts, copies, feeds, items, jobs, pictures, records, restamps } from '../db/schema';
import { feedWriter } from './feeds';
import { type FreshTerms, putFindable } from './findable';
import { recordsIn, recordWriter } from './records';
import { readRecord, readStored, readStoredItem, readStoredItems, storable } from './stored';

const PULL_PAGE = 200;
/** A device that was away for longer sends its changes as new ones. */
const RESTAMPS_KEPT_MS = 90 * 24 * 60 * 60 * 1000;

/** The tables whose rows travel to the devices: items and feeds have more columns than a record needs. */
const TABLES = { item: items, feed: feeds } as const;
export const tableOf = ({ name }: Pick<Kind, 'name'>) =>
  Object.hasOwn(TABLES, name) ? TABLES[name as keyof typeof TABLES] : records;

/** What changed in a library, up to a cursor to go on from. */
interface Changes {
  records: Records;
  cursor: number;
  more: boolean;
  /** How many records there were that cannot be read. */
  unread: number;
}

/** Kinds whose words an item is found by. */
const FINDABLE: readonly string[] = [noteKind.name];

/**
 * One account's library. There is no way to reach a record without an account: every function that reads or
 * writes one is made here, for one account, and names it in each condition.
 */
export function libraryOf(database: Database, accountId: string, registry = REGISTRY) {
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
      // Most who ask have all there is: that is one look, not one for each kind.
      const [account] = await database.read
        .select({ sequence: accounts.sequence })
        .from(accounts)
        .where(eq(accounts.id, accountId));
      if (account && account.sequence <= after) {
        const none = registry.kinds.map(({ plural }): [string, Stored[]] => [plural, []]);
        return { records: Object.fromEntries(none) as unknown as Records, cursor: after, more: false, unread: 0 };
      }
      const lastOfPage = async (table: ReturnType<typeof tableOf>) => {
        const rows = await database.read
          .select({ sequence: table.sequence })
          .from(table)
          .where(and(eq(table.accountId, accountId), gt(table.sequence, after)))
          .orderBy(asc(table.sequence))
          .limit(PULL_PAGE + 1);
        return { last: (rows[PULL_PAGE - 1] ?? rows.at(-1))?.sequence, more: rows.length > PULL_PAGE };
      };
      const pages = await Promise.all([items, feeds, records].map(lastOfPage));
      const cut = pages.filter(({ more }) => more).map(({ last }) => last ?? after);
      const cursor = cut.length > 0 ? Math.min(...cut) : Math.max(after, ...pages.map(({ last }) => last ?? 0));
      const all = await Promise.all([rowsIn(items), rowsIn(feeds), rowsOfRecords()]);
      let unread = 0;
      const found = registry.kinds.map((kind): [string, Stored[]] => {
        const rows = all.flat().filter((row) => row.kind === kind.name);
        const readable = rows.flatMap(({ record }) => readRecord(kind, record) ?? []);
        unread += rows.length - readable.length;
        return [kind.plural, readable];
      });
      return { records: Object.fromEntries(found) as unknown as Records, cursor, more: cut.length > 0, unread };

      function within(table: typeof items | typeof feeds | typeof records) {
        return and(eq(table.accountId, accountId), gt(table.sequence, after), lte(table.sequence, cursor));
      }
      async function rowsIn(table: typeof items | typeof feeds) {
        const rows = await database.read
          .select({ record: table.record })
          .from(table)
          .where(within(table))
          .orderBy(asc(table.sequence));
        const kind = table === items ? itemKind.name : feedKind.name;
        return rows.map(({ record }) => ({ kind, record }));
      }
      function rowsOfRecords() {
        return database.read
          .select({ kind: records.kind, record: records.record })
          .from(records)
          .where(within(records))
          .orderBy(asc(records.sequence));
      }
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
        .where(and(mine.item, eq(items.addressKey, addressKey), isNull(items.duplicateOf)))
        .orderBy(asc(items.id))
        .limit(1);
      return (row && readStoredItem(row.record)) ?? undefined;
    },

    /** The items that were changed last, the latest first. */
    async changedLast(most: number): Promise<Item[]> {
      const rows = await database.read
        .select({ record: items.record })
        .from(items)
        .where(and(mine.item, isNull(items.duplicateOf)))
        .orderBy(desc(items.sequence))
        .limit(most);
      return readStoredItems(rows);
    },

    /** What is marked in an item. */
    async highlightsOf(itemId: string): Promise<Highlight[]> {
      return (await recordsIn(database.read, accountId, highlightKind, itemId)).filter(
        ({ choices }) => !choices.removed.value,
      );
    },

    /** What the reader wrote in the note that an item has a field for. */
    async ownNoteOf(itemId: string): Promise<Note | null> {
      const notes = await recordsIn(database.read, accountId, noteKind, itemId);
      return notes.find(({ id }) => id === itemId) ?? null;
    },

    /** The dossiers that were worked on last, each with the rank that its last thing has. */
    async dossiersLast(most: number): Promise<{ id: string; title: string; end: string | null }[]> {
      const entries = await recordsIn(database.read, accountId, entryKind);
      const stampOf = (registers: object) =>
        Object.values(registers as Record<string, { at: string }>).reduce(
          (last, { at }) => (at > last ? at : last),
          '',
        );
      return (await recordsIn(database.read, accountId, dossierKind))
        .filter(({ choices }) => !choices.removed.value)
        .map(({ id, choices }) => {
          const own = entries.filter(({ dossierId }) => dossierId === id);
          const last = [stampOf(choices), ...own.map((each) => stampOf(each.choices))].sort().at(-1) ?? '';
          const end = inOrder(own, id).at(-1)?.choices.rank.value ?? null;
          return { id, title: choices.title.value, end, last };
        })
        .sort((a, b) => (a.last < b.last ? 1 : -1))
        .slice(0, most)
        .map(({ id, title, end }) => ({ id, title, end }));
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
            eq(records.kind, highlightKind.name),
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
            isNull(items.duplicateOf),
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

    /** The bytes of all its pictures. */
    async pictureBytes(): Promise<number> {
      const [row] = await database.read
        .select({ bytes: sum(pictures.bytes) })
        .from(pictures)
        .where(mine.picture);
      return Number(row?.bytes ?? 0);
    },

    /** Has the next change be numbered above a number from elsewhere, so that what comes from there is older than it. */
    async raiseTo(sequence: number): Promise<void> {
      await database.write((tx) =>
        tx
          .update(accounts)
          .set({ sequence: sql`max(${accounts.sequence}, ${sequence})` })
          .where(eq(accounts.id, accountId)),
      );
    },

    /** Changes the library in one transaction that has one new sequence number. */
    change<Result>(work: (write: LibraryWriter) => Promise<Result>): Promise<Result> {
      return database.write(async (tx) => work(await libraryWriter(tx, accountId, registry)));
    },
  };
}
export type Library = ReturnType<typeof libraryOf>;

async function libraryWriter(tx: Transaction, accountId: string, registry: Registry) {
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
    /** The kinds of record that there are. */
    registry,
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

    /**
     * The stamp that a change is to have which came with an implausible one: the same each time that it is sent.
     *
     * @param make gives it one the first time
     * @param now milliseconds since 1970
     */
    async restamped(mutationId: string, make: () => string, now: number): Promise<string> {
      const [known] = await tx
        .select({ stamp: restamps.stamp })
        .from(restamps)
        .where(and(eq(restamps.accountId, accountId), eq(restamps.mutationId, mutationId)));
      if (known) return known.stamp;
      const stamp = make();
      await tx.delete(restamps).where(lt(restamps.at, now - RESTAMPS_KEPT_MS));
      await tx.insert(restamps).values({ accountId, mutationId, stamp, at: now });
      return stamp;
    },

    /** The stamps that were given anew to changes that came before, by the changes' ids. */
    async restampsOf(mutationIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
      const rows = await tx
        .select({ id: restamps.mutationId, stamp: restamps.stamp })
        .from(restamps)
        .where(and(eq(restamps.accountId, accountId), inArray(restamps.mutationId, [...mutationIds])));
      return new Map(rows.map(({ id, stamp }) => [id, stamp]));
    },

    /** The item that stands for an address, other than `exceptId`: the one saved first. */
    async itemAt(addressKey: string, exceptId: string): Promise<Item | undefined> {
      const rows = await tx
        .select({ record: items.record })
        .from(items)
        .where(and(mine, eq(items.addressKey, addressKey), isNull(items.duplicateOf), ne(items.id, exceptId)))
        .orderBy(asc(items.id))
        .limit(1);
      return parse(rows[0]);
    },

    async inQueue(): Promise<Item[]> {
      const rows = await tx
        .select({ record: items.record })
        .from(items)
        .where(
          and(mine, isNull(items.duplicateOf), sql`json_extract(${items.record}, '$.choices.stage.value') = 'queue'`),
        );
      return readStoredItems(rows);
    },

    /** Keeps a record, and makes its item findable by what is written in it. Items and feeds are put otherwise. @throws Unstorable */
    async putRecord<Record extends Stored, Made extends Change>(
      kind: Kind<Record, Made>,
      record: Record,
    ): Promise<void> {
      await small.putRecord(kind, record);
      const itemId = kind.itemIdOf(record);
      if (itemId !== null && FINDABLE.includes(kind.name)) await this.findAnew(itemId);
    },

    /** Has what belongs to an item belong to another, which stands for it from now on. */
    async moveRecords(itemId: string, canonicalId: string): Promise<void> {
      for (const kind of registry.kinds)
        for (const record of kind.movedTo ? await recordsIn(tx, accountId, kind, itemId) : [])
          await this.putRecord(kind, kind.movedTo?.(record, canonicalId) ?? record);
    },

    async findAnew(itemId: string): Promise<void> {
      const item = await this.item(itemId);
      if (item) await putFindable(tx, accountId, item);
    },

    /** @throws Unstorable when the reader's own words do not fit; those of others are cut */
    async put(given: Item): Promise<void> {
      const item = storable(itemKind, given);
      const row = {
        accountId,
        id: item.id,
        sequence,
        addressKey: item.capture.addressKey,
        duplicateOf: item.capture.duplicateOf,
        record: item,
      };
      await tx
        .insert(items)
        .values(row)
        .onConflictDoUpdate({ target: [items.accountId, items.id], set: row });
      await putFindable(tx, accountId, item, freshTerms.get(item.id));
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
            ne(jobs.lane, 'looking'),
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

    /** Has the pictures of an item looked at, when it is their turn. */
    async enqueueLooking(itemId: string, now: number): Promise<void> {
      await tx.insert(jobs).values({
        id: uuidv7(),
        accountId,
        itemId,
        state: 'waiting',
        lane: 'looking',
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
