import { setImmediate as turn } from 'node:timers/promises';
import { treeToHtml, treeToMarkdown } from '@dorvel/core/extract';
import {
  ARCHIVE_FILES,
  ARCHIVE_FORMAT,
  ARCHIVE_README,
  bookmarkLine,
  bookmarksAround,
  type HighlightedItem,
  highlightsAsAnnotations,
  itemFrontMatter,
  itemPage,
  subscriptionOf,
  textFileName,
  writeOpml,
} from '@dorvel/core/formats';
import type { Account, Copy, Item } from '@dorvel/core/model';
import { feedKind, highlightKind, itemKind, type Kind, noteKind, REGISTRY, type Stored } from '@dorvel/core/records';
import { and, asc, eq, gt } from 'drizzle-orm';
import type { Database } from '../db/open';
import { copies, feeds, items, pictures, records } from '../db/schema';
import type { FileStore } from '../files/files';
import type { Library } from '../library/library';
import { recordsIn } from '../library/records';
import { readRecord } from '../library/stored';
import type { ArchiveFile } from './pack';

/** So many rows are read at once: texts are large. */
const ROWS = 50;

export interface ArchiveParts {
  database: Database;
  library: Library;
  files: FileStore;
  now: number;
}

/**
 * All of a library, file by file, for its owner: nothing of it is in memory as a whole but what is marked. What cannot be read
 * is left out; `npm run doctor` tells of it.
 */
export async function* archiveFiles(account: Account, parts: ArchiveParts): AsyncGenerator<ArchiveFile> {
  const { database, library, files, now } = parts;
  yield { name: ARCHIVE_FILES.readme, content: [ARCHIVE_README] };
  const about = {
    is: 'dorvel-archive',
    format: ARCHIVE_FORMAT,
    madeAt: new Date(now).toISOString(),
    name: account.name,
  };
  yield { name: ARCHIVE_FILES.library, content: [`${JSON.stringify(about, null, 2)}\n`] };
  for (const kind of REGISTRY.kinds)
    yield { name: ARCHIVE_FILES.records(kind.plural), content: asLines(storedRecords(database, account.id, kind)) };
  yield { name: ARCHIVE_FILES.copies, content: asLines(storedCopies(database, account.id)) };
  for await (const item of savedItems(account, database)) {
    const copyId = item.capture.page?.copyId;
    // The database answers at once: without a turn in between nobody else would be served, and nothing read be given back.
    await turn();
    yield* textFiles(item, copyId ? ((await library.copy(copyId)) ?? null) : null);
  }
  yield* lists(account, parts);
  const hashes = await database.read
    .select({ hash: pictures.hash })
    .from(pictures)
    .where(eq(pictures.accountId, account.id))
    .orderBy(asc(pictures.hash));
  for (const { hash } of hashes) {
    const bytes = await files.read(hash);
    if (bytes) yield { name: ARCHIVE_FILES.picture(hash), isPacked: true, content: [new Uint8Array(bytes)] };
  }
}

/** An item as Markdown and as a page; one without a text as what is known of it. */
function* textFiles(item: Item, copy: Copy | null): Generator<ArchiveFile> {
  const name = textFileName(item);
  const text = copy ? withPicturesBeside(treeToMarkdown(copy.tree)) : '';
  yield { name: `${name}.md`, content: [`${itemFrontMatter(item)}\n${text}`] };
  if (copy)
    yield { name: `${name}.html`, content: [itemPage(item, withPicturesBeside(treeToHtml(copy.tree)), copy.language)] };
}

/** Pictures of the library by where they lie in the archive, as seen from `texts/`. */
const withPicturesBeside = (written: string): string =>
  written.replace(/\/api\/pictures\/(?=[0-9a-f]{64}\.webp)/g, '../pictures/');

async function* lists(account: Account, { database, now }: ArchiveParts): AsyncGenerator<ArchiveFile> {
  const { id, name } = account;
  const highlightsOf = byItem(
    (await recordsIn(database.read, id, highlightKind)).filter(({ choices }) => !choices.removed.value),
  );
  const notesOf = byItem(
    (await recordsIn(database.read, id, noteKind)).filter(({ choices }) => !choices.removed.value),
  );
  const marked: HighlightedItem[] = [];
  yield {
    name: ARCHIVE_FILES.bookmarks,
    content: (async function* () {
      const { head, foot } = bookmarksAround(name);
      yield head;
      for await (const item of savedItems(account, database)) {
        yield bookmarkLine(item);
        const [highlights, notes] = [highlightsOf.get(item.id) ?? [], notesOf.get(item.id) ?? []];
        if (highlights.length + notes.length > 0) marked.push({ item, highlights, notes });
      }
      yield foot;
    })(),
  };
  const rows = await database.read
    .select({ record: feeds.record })
    .from(feeds)
    .where(eq(feeds.accountId, id))
    .orderBy(asc(feeds.id));
  const followed = rows
    .flatMap(({ record }) => readRecord(feedKind, record) ?? [])
    .filter(({ choices }) => choices.following.value)
    .map(subscriptionOf);
  yield { name: ARCHIVE_FILES.feeds, content: [writeOpml(name, now, followed)] };
  yield { name: ARCHIVE_FILES.annotations, content: [`${JSON.stringify(highlightsAsAnnotations(marked), null, 2)}\n`] };
}

/** The items that stand for themselves. */
async function* savedItems({ id }: Account, database: Database): AsyncGenerator<Item> {
  for await (const stored of storedRecords(database, id, itemKind)) {
    const item = stored as Item;
    if (item.capture.duplicateOf === null) yield item;
  }
}

/** What belongs to an item, by the item. */
function byItem<Each extends { itemId: string | null }>(values: readonly Each[]): Map<string, Each[]> {
  const found = new Map<string, Each[]>();
  for (const value of values) {
    if (value.itemId === null) continue;
    const known = found.get(value.itemId);
    if (known) known.push(value);
    else found.set(value.itemId, [value]);
  }
  return found;
}

async function* asLines(values: AsyncIterable<unknown>): AsyncGenerator<string> {
  for await (const value of values) yield `${JSON.stringify(value)}\n`;
}

/** All records of a kind in the order of their ids. */
async function* storedRecords(database: Database, accountId: string, kind: Kind): AsyncGenerator<Stored> {
  const table = kind.name === itemKind.name ? items : kind.name === feedKind.name ? feeds : records;
  for (let after = ''; ;) {
    const rows = await database.read
      .select({ id: table.id, record: table.record })
      .from(table)
      .where(
        and(
          eq(table.accountId, accountId),
          gt(table.id, after),
          table === records ? eq(records.kind, kind.name) : undefined,
        ),
      )
      .orderBy(asc(table.id))
      .limit(ROWS);
    await turn();
    for (const { record } of rows) {
      const read = readRecord(kind, record);
      if (read) yield read;
    }
    const last = rows.at(-1);
    if (!last || rows.length < ROWS) return;
    after = last.id;
  }
}

async function* storedCopies(database: Database, accountId: string): AsyncGenerator {
  for (let after = ''; ;) {
    const rows = await database.read
      .select({ id: copies.id, record: copies.record })
      .from(copies)
      .where(and(eq(copies.accountId, accountId), gt(copies.id, after)))
      .orderBy(asc(copies.id))
      .limit(ROWS);
    await turn();
    for (const { record } of rows) yield record;
    const last = rows.at(-1);
    if (!last || rows.length < ROWS) return;
    after = last.id;
  }
}
