import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { noteText } from '@dorvel/core/notes';
import { REGISTRY, type Stored } from '@dorvel/core/records';
import { DRAFTS, uuid } from '@dorvel/core/testing';
import { type Client, createClient, type InValue } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { libraryOf } from '../library/library';
import { examine } from '../library/mend';
import { openDatabase } from './open';

const MIGRATIONS = path.join(__dirname, 'migrations');
const JOURNAL = path.join('meta', '_journal.json');
const { entries } = JSON.parse(readFileSync(path.join(MIGRATIONS, JOURNAL), 'utf8')) as {
  entries: { tag: string }[];
};
const ACCOUNT = uuid(500);

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A record of each kind, by the kind's name. */
const RECORDS = new Map(
  REGISTRY.kinds.map((kind) => {
    const change = { ...DRAFTS[kind.name]!(1).makes, id: uuid(9), stamp: '000000001-0000-a' };
    return [kind.name, kind.apply(undefined, change)!];
  }),
);
const TREE = { type: 'root', children: [] };
const COPY = {
  id: uuid(600),
  itemId: uuid(1),
  madeAt: 5,
  title: 'T',
  language: 'en',
  hash: 'a'.repeat(64),
  tree: TREE,
};

/** A record as it was when it had a note within it. */
const WITHIN = { value: 'Ask the yard.', at: '000000002-0000-a' };
const withNote = (record: Stored): Stored => {
  const { choices } = record as Stored & { choices: object };
  return { ...record, choices: { ...choices, note: WITHIN } } as Stored;
};
const BEFORE_NOTES = entries.findIndex(({ tag }) => tag.includes('notes-are-one'));

/** Rows for a table as it was: a record for each kind that it takes, and something in every other column. */
function rowsFor(table: string, hasNotesWithin: boolean): { id?: string; kind?: string; record?: unknown }[] {
  const ofKind = (name: string) => {
    const record = RECORDS.get(name)!;
    const isNoted = hasNotesWithin && ['item', 'highlight'].includes(name);
    return { id: record.id, record: isNoted ? withNote(record) : record };
  };
  switch (table) {
    case 'items':
      return [ofKind('item')];
    case 'feeds':
      return [ofKind('feed')];
    case 'activities':
      return [ofKind('activity')];
    case 'copies':
      return [{ id: COPY.id, record: COPY }];
    case 'records':
      return ['highlight', 'search'].map((kind) => ({ kind, ...ofKind(kind) }));
    case 'accounts':
      return [{ id: ACCOUNT }];
    default:
      return [{}];
  }
}

async function fill(client: Client, hasNotesWithin: boolean): Promise<void> {
  const { rows: tables } = await client.execute(
    "select name from sqlite_schema where type = 'table' and name not like '!_!_%' escape '!' and name not like 'sqlite!_%' escape '!' order by name <> 'accounts', name = 'token_saves', name",
  );
  for (const { name } of tables) {
    const table = name as string;
    const { rows: columns } = await client.execute(`pragma table_info(${table})`);
    for (const given of rowsFor(table, hasNotesWithin)) {
      const values = columns.map((column): InValue => {
        const at = column.name as string;
        if (at === 'account_id') return ACCOUNT;
        if (at === 'id' && given.id) return given.id;
        if (at === 'kind' && given.kind) return given.kind;
        if (at === 'record') return JSON.stringify(given.record);
        if (at === 'state') return 'done';
        if (at === 'same_as') return null;
        if (at === 'item_id' && given.record) return (given.record as { itemId?: string }).itemId ?? null;
        if (at === 'id' && table === 'libraries') return 1;
        return column.type === 'text' || column.type === 'TEXT' ? '"x"' : 7;
      });
      const places = columns.map(() => '?').join(', ');
      await client.execute({ sql: `insert into ${table} values (${places})`, args: values });
    }
  }
}

it.each(entries.map(({ tag }, n) => [tag, n] as const))(
  'a library as it was after %s has all that it had, and is sound',
  async (_tag, n) => {
    const early = path.join(folder, 'migrations');
    cpSync(MIGRATIONS, early, { recursive: true });
    const journal = JSON.parse(readFileSync(path.join(early, JOURNAL), 'utf8')) as object;
    writeFileSync(path.join(early, JOURNAL), JSON.stringify({ ...journal, entries: entries.slice(0, n + 1) }));
    const url = `file:${path.join(folder, 'test.db')}`;
    const client = createClient({ url });
    await migrate(drizzle(client), { migrationsFolder: early });
    await fill(client, n < BEFORE_NOTES);
    const counts = async (at: Client) => {
      const { rows } = await at.execute("select name from sqlite_schema where type = 'table'");
      return new Set(rows.map((row) => row.name as string));
    };
    const had = await counts(client);
    client.close();

    const database = await openDatabase(url, MIGRATIONS);
    try {
      for (const { what, count, faults } of await examine(database)) {
        expect([what, faults]).toEqual([what, []]);
        const wasThere =
          what === 'copy' || what === 'item'
            ? true
            : what === 'feed'
              ? had.has('feeds')
              : what === 'activity'
                ? had.has('activities')
                : ['highlight', 'search'].includes(what) && had.has('records');
        if (wasThere) expect([what, count]).toEqual([what, 1]);
      }
      const { records, unread } = await libraryOf(database, ACCOUNT).changesAfter(0);
      expect(unread).toBe(0);
      const items: readonly Stored[] = records.items;
      expect(items).toEqual([RECORDS.get('item')]);
      const moved = records.notes.map((note) => [note.on.kind, noteText(note), note.versions[0]?.at]);
      if (n < BEFORE_NOTES)
        expect(moved).toEqual(
          [['item', WITHIN.value, WITHIN.at], had.has('records') && ['highlight', WITHIN.value, WITHIN.at]].filter(
            Boolean,
          ),
        );
      if (had.has('activities')) expect(records.activities).toEqual([RECORDS.get('activity')]);
      const broken = await database.read.all(sql`pragma foreign_key_check`);
      expect(broken).toEqual([]);
    } finally {
      database.close();
    }
  },
);
