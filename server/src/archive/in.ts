import { createHash } from 'node:crypto';
import { isOnWeb } from '@dorvel/core/address';
import { safeTree } from '@dorvel/core/extract';
import { ARCHIVE_FILES } from '@dorvel/core/formats';
import {
  type ArchiveFaultCode,
  type ArchiveLook,
  Copy,
  type Feed,
  type Item,
  MOST_TOLD,
  type Standing,
} from '@dorvel/core/model';
import { type Change, feedKind, itemKind, join, type Kind, REGISTRY, type Stored } from '@dorvel/core/records';
import type { HybridClock } from '@dorvel/core/sync';
import { recordTitle } from '@dorvel/core/wording';
import { and, eq, inArray } from 'drizzle-orm';
import type { Database } from '../db/open';
import { copies, feeds, pictures, records } from '../db/schema';
import type { FileStore } from '../files/files';
import { FeedMemory } from '../library/feeds';
import type { Library, LibraryWriter } from '../library/library';
import { readRecord, storable } from '../library/stored';
import { feedWithSafeAddresses, joinItem, withSafeAddresses } from './join-items';
import { plausibly } from './plausible';
import type { ArchiveLine, OpenArchive } from './read';

/** So many records go in in one change of the library: readers and devices wait no longer than for these. */
const AT_ONCE = 50;
const BYTES_AT_ONCE = 8 * 1024 ** 2;
/** Numbers of changes beyond this are not ours: none of a library's own could be told from them any more. */
const LAST_REVISION = 1e14;

interface BringInParts {
  database: Database;
  library: Library;
  files: FileStore;
  clock: HybridClock;
  now(): number;
}

interface Going {
  /** False to look only: nothing is written then. */
  brings: boolean;
  /** Told how far it is, in bytes of the archive's `size`. */
  step(passed: number): void;
  /** Asked before each part: false ends it, and what was brought in stays. */
  isWanted(): boolean;
}

/** What is known before anything is brought in. */
interface Plan {
  /** The items of the archive. */
  ids: ReadonlySet<string>;
  /** Items of the archive whose page is here as another item: that one, by theirs. */
  twins: ReadonlyMap<string, string>;
  /** The highest number of a change in it. */
  revision: number;
}

/**
 * Goes through an archive: tells what it has for a library and, if asked, brings it in. Records are joined with those of the same
 * id as those of two devices are, so that doing it twice is doing it once; an item whose page is here already under another id
 * becomes one with that. What cannot be read, or leads nowhere, is told of and left out.
 *
 * @throws what is wrong with the database; what was brought in until then stays
 */
export async function goThrough(archive: OpenArchive, parts: BringInParts, going: Going): Promise<ArchiveLook> {
  const { database, library, clock } = parts;
  const told = teller(archive.about);
  let passed = 0;
  const read = (bytes: number) => going.step((passed += bytes));
  const safely = plausibly(clock, () => parts.now());
  const plan = await planOf(archive, library);
  if (going.brings) await library.raiseTo(plan.revision);
  await takePictures();
  await takeCopies();
  const followed = new Map(
    (
      await database.read.select({ record: feeds.record }).from(feeds).where(eq(feeds.accountId, library.accountId))
    ).flatMap(({ record }) => {
      const feed = readRecord(feedKind, record);
      return feed ? [[feed.address, feed.id] as const] : [];
    }),
  );
  for (const kind of REGISTRY.kinds) await takeRecords(kind);
  return told.all();

  async function takePictures(): Promise<void> {
    for (const some of inParts([...archive.pictures.keys()])) {
      if (!going.isWanted()) return;
      const known = await database.read
        .select({ hash: pictures.hash })
        .from(pictures)
        .where(and(eq(pictures.accountId, library.accountId), inArray(pictures.hash, some)));
      const here = new Set(known.map(({ hash }) => hash));
      const made: { hash: string; bytes: number }[] = [];
      for (const hash of some) {
        const isHere = here.has(hash);
        if (!isHere && going.brings) {
          const bytes = await archive.picture(hash);
          if (!bytes || !isWebp(bytes) || hashOf(bytes) !== hash) {
            told.fault('pictures', hash.slice(0, 12), 'damaged');
            continue;
          }
          await parts.files.put(bytes);
          made.push({ hash, bytes: bytes.length });
        }
        told.count('pictures', isHere ? 'same' : 'new');
        read(archive.pictures.get(hash) ?? 0);
      }
      if (made.length > 0) await library.change((write) => write.putPictures(made));
    }
  }

  async function takeCopies(): Promise<void> {
    for await (const lines of together(archive.lines(ARCHIVE_FILES.copies, read))) {
      if (!going.isWanted()) return;
      const some = lines.flatMap((line): Copy[] => {
        const copy = parsed(() => Copy.safeParse(line).data ?? null);
        if (copy) return [copy];
        told.fault('copies', nameOf(line), 'unreadable');
        return [];
      });
      const known = await database.read
        .select({ id: copies.id })
        .from(copies)
        .where(
          and(
            eq(copies.accountId, library.accountId),
            inArray(
              copies.id,
              some.map(({ id }) => id),
            ),
          ),
        );
      const here = new Set(known.map(({ id }) => id));
      const made: Copy[] = [];
      for (const copy of some) {
        const isHere = here.has(copy.id);
        if (!isHere && !plan.ids.has(copy.itemId) && !(await library.item(copy.itemId))) {
          told.fault('copies', copy.title ?? copy.id, 'belongs-nowhere');
          continue;
        }
        told.count('copies', isHere ? 'same' : 'new');
        if (!isHere)
          made.push({ ...copy, itemId: plan.twins.get(copy.itemId) ?? copy.itemId, tree: safeTree(copy.tree) });
        // Twice in one archive.
        here.add(copy.id);
      }
      if (going.brings && made.length > 0)
        await library.change(async (write) => {
          for (const copy of made) await write.putCopy(copy);
        });
    }
  }

  async function takeRecords(kind: Kind): Promise<void> {
    for await (const lines of together(archive.lines(ARCHIVE_FILES.records(kind.plural), read))) {
      if (!going.isWanted()) return;
      const some = lines.flatMap((line): Stored[] => {
        const record = recordIn(kind, line);
        if (!record) told.fault(kind.plural, nameOf(line), 'unreadable');
        return record ? [safely(record)] : [];
      });
      if (going.brings) await library.change((write) => takeSome(kind, some, write));
      else await takeSome(kind, some, null);
    }
  }

  /** @param write null to look only */
  async function takeSome(kind: Kind, some: readonly Stored[], write: LibraryWriter | null): Promise<void> {
    for (const record of some)
      if (kind.name === itemKind.name) await takeItem(record as Item, write);
      else if (kind.name === feedKind.name) await takeFeed(record as Feed, write);
      else await takeSmall(kind, record, write);
  }

  async function takeItem(given: Item, write: LibraryWriter | null): Promise<void> {
    const item = withSafeAddresses(given);
    if (!item) {
      told.fault('items', given.address, 'address');
      return;
    }
    const twinId = plan.twins.get(item.id);
    const here = await (write ?? library).item(twinId ?? item.id);
    const sequence = write?.sequence ?? 0;
    const { record, standing } = here
      ? joinItem(here, item, sequence)
      : { record: pointsRight(item), standing: 'new' as const };
    told.record('items', record, standing);
    if (!write) return;
    if (standing !== 'same' && standing !== 'newer-here') await write.put(record);
    if (twinId && !(await write.item(item.id)))
      await write.put({
        ...item,
        capture: {
          ...item.capture,
          revision: sequence,
          state: 'arrived',
          outcome: { code: 'already-saved' },
          duplicateOf: twinId,
        },
      });
    const { state, duplicateOf } = record.capture;
    if (
      standing === 'new' &&
      duplicateOf === null &&
      (state === 'waiting' || state === 'fetching') &&
      isOnWeb(item.address)
    )
      await write.enqueueCapture(item.id, parts.now());
  }

  /** One that stands for nothing but another, which has become one with an item that is here, points at that. */
  function pointsRight(item: Item): Item {
    const { duplicateOf } = item.capture;
    if (duplicateOf === null) return item;
    const target = plan.twins.get(duplicateOf) ?? (plan.ids.has(duplicateOf) ? duplicateOf : null);
    return target === duplicateOf ? item : { ...item, capture: { ...item.capture, duplicateOf: target } };
  }

  async function takeFeed(given: Feed, write: LibraryWriter | null): Promise<void> {
    const safe = feedWithSafeAddresses(given);
    if (!safe) {
      told.fault('feeds', given.address, 'address');
      return;
    }
    const feed = { ...safe, id: followed.get(safe.address) ?? safe.id };
    const known = write ? await write.feed(feed.id) : undefined;
    const here = known?.feed ?? (await recordHere(feedKind, feed.id));
    const { record, standing } = join(feedKind.merge, here, feed);
    told.record('feeds', record, standing);
    if (!write || standing === 'same' || standing === 'newer-here') return;
    const isFollowed = record.choices.following.value;
    await write.putFeed(
      record,
      known?.memory ?? FeedMemory.parse({}),
      isFollowed ? (known?.dueAt ?? parts.now()) : null,
    );
  }

  async function takeSmall(kind: Kind, given: Stored, write: LibraryWriter | null): Promise<void> {
    const theirs = kind.itemIdOf(given);
    const twin = theirs === null ? undefined : plan.twins.get(theirs);
    const record = twin !== undefined && kind.movedTo ? kind.movedTo(given, twin) : given;
    if (kind.needsItem && theirs !== null && !plan.ids.has(theirs) && !(await library.item(theirs))) {
      told.fault(kind.plural, recordTitle(kind.plural, record), 'belongs-nowhere');
      return;
    }
    const here = write ? await write.record(kind, record.id) : await recordHere(kind, record.id);
    const joined = join(kind.merge, here, record);
    told.record(kind.plural, joined.record, joined.standing);
    if (write && joined.standing !== 'same' && joined.standing !== 'newer-here')
      await write.putRecord(kind, joined.record);
  }

  async function recordHere<Shape extends Stored, Made extends Change>(
    kind: Kind<Shape, Made>,
    id: string,
  ): Promise<Shape | undefined> {
    const table = kind.name === feedKind.name ? feeds : records;
    const [row] = await database.read
      .select({ record: table.record })
      .from(table)
      .where(
        and(
          eq(table.accountId, library.accountId),
          eq(table.id, id),
          table === records ? eq(records.kind, kind.name) : undefined,
        ),
      );
    return (row && readRecord(kind, row.record)) ?? undefined;
  }
}

/** Reads the items of an archive once before all else: what else there is leads to them. */
async function planOf(archive: OpenArchive, library: Library): Promise<Plan> {
  const ids = new Set<string>();
  const twins = new Map<string, string>();
  let revision = 0;
  for await (const { value } of archive.lines(ARCHIVE_FILES.records('items'), () => undefined)) {
    const item = recordIn(itemKind, value);
    if (!item || !withSafeAddresses(item)) continue;
    ids.add(item.id);
    revision = Math.max(revision, item.capture.revision);
    const here = await library.item(item.id);
    const other = here?.capture.duplicateOf
      ? { id: here.capture.duplicateOf }
      : here || item.capture.duplicateOf !== null
        ? undefined
        : await library.itemAt(item.capture.addressKey);
    if (other) twins.set(item.id, other.id);
  }
  for await (const { value } of archive.lines(ARCHIVE_FILES.records('feeds'), () => undefined))
    revision = Math.max(revision, recordIn(feedKind, value)?.state.revision ?? 0);
  return { ids, twins, revision };
}

const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');
/** By its first bytes (RFC 9649, 2.4). */
const isWebp = (bytes: Buffer): boolean =>
  bytes.toString('latin1', 0, 4) === 'RIFF' && bytes.toString('latin1', 8, 12) === 'WEBP';

function inParts<Value>(values: readonly Value[]): Value[][] {
  const parts: Value[][] = [];
  for (let start = 0; start < values.length; start += AT_ONCE) parts.push(values.slice(start, start + AT_ONCE));
  return parts;
}

/** As many at once as is quick, and never so large that they fill the memory. */
async function* together(lines: AsyncIterable<ArchiveLine>): AsyncGenerator<unknown[]> {
  let [some, size]: [unknown[], number] = [[], 0];
  for await (const { value, bytes } of lines) {
    some.push(value);
    size += bytes;
    if (some.length < AT_ONCE && size < BYTES_AT_ONCE) continue;
    yield some;
    [some, size] = [[], 0];
  }
  if (some.length > 0) yield some;
}

/** A line as a record that may be stored; null for one that is none. Of an item the address is kept at least. */
function recordIn<Shape extends Stored, Made extends Change>(kind: Kind<Shape, Made>, line: unknown): Shape | null {
  if (typeof line !== 'object' || line === null) return null;
  const record = parsed(() => storable(kind, line as Shape)) ?? parsed(() => kind.rescue?.(line) ?? null);
  return record && withOurRevision(record);
}

/** What the server numbered; numbers that cannot be ours are forgotten. */
function withOurRevision<Shape extends Stored>(record: Shape): Shape {
  const { capture, state } = record as Partial<Pick<Item, 'capture'> & Pick<Feed, 'state'>>;
  if ((capture?.revision ?? 0) > LAST_REVISION) return { ...record, capture: { ...capture, revision: 0 } };
  if ((state?.revision ?? 0) > LAST_REVISION) return { ...record, state: { ...state, revision: 0 } };
  return record;
}

/** What reading comes to; null when it fails, in whatever way a line was made to fail. */
function parsed<Value>(work: () => Value | null): Value | null {
  try {
    return work();
  } catch {
    return null;
  }
}

function nameOf(line: unknown): string {
  const { id, address } = (typeof line === 'object' && line !== null ? line : {}) as Record<string, unknown>;
  return [address, id].find((each) => typeof each === 'string')?.slice(0, 200) ?? '?';
}

/** Counts what was met, and remembers the first of what has to be told. */
function teller({ madeAt, name }: OpenArchive['about']) {
  const kinds = new Map<string, Partial<Record<Standing, number>>>();
  const look: Pick<ArchiveLook, 'differing' | 'faults' | 'faultCount'> = { differing: [], faults: [], faultCount: 0 };
  const count = (plural: string, standing: Standing) => {
    const of = kinds.get(plural) ?? {};
    of[standing] = (of[standing] ?? 0) + 1;
    kinds.set(plural, of);
  };
  return {
    count,
    record(plural: string, record: Stored, standing: Standing) {
      count(plural, standing);
      if (standing !== 'new' && standing !== 'same' && look.differing.length < MOST_TOLD)
        look.differing.push({ plural, title: recordTitle(plural, record), standing });
    },
    fault(plural: string, called: string, fault: ArchiveFaultCode) {
      look.faultCount += 1;
      if (look.faults.length < MOST_TOLD) look.faults.push({ plural, name: called.slice(0, 200), fault });
    },
    all(): ArchiveLook {
      const none = { new: 0, same: 0, 'newer-here': 0, 'newer-there': 0, both: 0 };
      return {
        madeAt,
        name,
        kinds: [...kinds].map(([plural, standings]) => ({ plural, standings: { ...none, ...standings } })),
        ...look,
      };
    },
  };
}
