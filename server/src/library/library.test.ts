import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { NEVER } from '@dorvel/core/model';
import type { Mutation } from '@dorvel/core/records';
import { createClock, FUTURE_TOLERANCE_MS, type PushResult } from '@dorvel/core/sync';
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { type Database, isDiskFull, openDatabase } from '../db/open';
import { jobRepository, LEASE_MS, MOST_OF_A_SITE } from '../jobs/queue';
import { libraryOf } from './library';
import { takeMutation } from './take-mutations';

let folder: string;
let database: Database;
let now = Date.UTC(2026, 0, 1);
const clock = createClock('test', () => now);

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
});
afterEach(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

async function account(mail: string) {
  const made = await accountRepository(database, () => now).create(mail, 'A Reader', 'a long enough passphrase');
  if (!made) throw new Error('not made');
  return libraryOf(database, made.id);
}
type Library = Awaited<ReturnType<typeof account>>;
const push = (library: Library, ...mutations: unknown[]) =>
  library.change(async (write) => {
    const results: PushResult[] = [];
    for (const mutation of mutations) results.push(await takeMutation(write, mutation, { clock, now: () => now }));
    return results;
  });
const save = (address: string, itemId = uuidv7()): Mutation & { type: 'save' } => ({
  type: 'save',
  id: uuidv7(),
  itemId,
  address,
  savedAt: now,
  stamp: clock.next(),
});

const sitting = (id: string, seconds: number): Mutation => ({
  type: 'activity',
  id: uuidv7(),
  itemId: id,
  stamp: clock.next(),
  activity: { id, itemId: id, startedAt: now, day: '2026-01-01', by: 'eyes', seconds, words: seconds * 4 },
});

describe('a library', () => {
  it('hands out what changed since a cursor, each item once, in order', async () => {
    const library = await account('a@example.org');
    const first = save('https://example.org/1');
    await push(library, first);
    await push(library, save('https://example.org/2'));
    const { records, cursor } = await library.changesAfter(0);
    expect(records.items.map((item) => item.address)).toEqual(['https://example.org/1', 'https://example.org/2']);
    expect((await library.changesAfter(cursor)).records.items).toEqual([]);
    await push(library, {
      type: 'choose',
      id: uuidv7(),
      itemId: first.itemId,
      stamp: clock.next(),
      set: { stage: 'kept' },
    });
    expect((await library.changesAfter(cursor)).records.items.map((item) => item.choices.stage.value)).toEqual([
      'kept',
    ]);
  });

  it('hands out a large library in pages', async () => {
    const library = await account('a@example.org');
    await push(library, ...Array.from({ length: 5 }, (_, n) => save(`https://example.org/${n}`)));
    for (let n = 0; n < 210; n++) await push(library, save(`https://example.org/many/${n}`));
    const first = await library.changesAfter(0);
    expect(first.more).toBe(true);
    const second = await library.changesAfter(first.cursor);
    expect(second.more).toBe(false);
    expect(new Set([...first.records.items, ...second.records.items].map((item) => item.id)).size).toBe(215);
  });

  it('never cuts a push in two, so that nothing falls between two pages', async () => {
    const library = await account('a@example.org');
    await push(library, ...Array.from({ length: 150 }, (_, n) => save(`https://example.org/a/${n}`)));
    await push(library, ...Array.from({ length: 150 }, (_, n) => save(`https://example.org/b/${n}`)));
    await push(library, sitting(uuidv7(), 20));
    const seen = new Set<string>();
    let sittings = 0;
    for (let after = 0, more = true; more;) {
      const page = await library.changesAfter(after);
      page.records.items.forEach((item) => seen.add(item.id));
      sittings += page.records.activities.length;
      ({ cursor: after, more } = page);
    }
    expect([seen.size, sittings]).toEqual([300, 1]);
  });

  it('keeps the longer state of a sitting, whichever comes last', async () => {
    const library = await account('a@example.org');
    const id = uuidv7();
    await push(library, sitting(id, 60), sitting(id, 30));
    const { records, cursor } = await library.changesAfter(0);
    expect(records.activities.map(({ seconds }) => seconds)).toEqual([60]);
    const other = await account('b@example.org');
    await push(other, sitting(id, 10));
    expect((await other.changesAfter(0)).records.activities.map(({ seconds }) => seconds)).toEqual([10]);
    expect((await library.changesAfter(cursor)).records.activities).toEqual([]);
  });

  it('is closed to every other account', async () => {
    const hers = await account('her@example.org');
    const his = await account('his@example.org');
    const mutation = save('https://example.org/secret');
    await push(hers, mutation);
    await hers.change(async (write) => {
      await write.putCopy({
        id: mutation.itemId,
        itemId: mutation.itemId,
        madeAt: now,
        title: null,
        language: null,
        hash: null,
        tree: { type: 'root', children: [] },
      });
      await write.putPictures([{ hash: 'a'.repeat(64), bytes: 1 }]);
    });
    expect(await his.item(mutation.itemId)).toBeUndefined();
    expect(await his.copy(mutation.itemId)).toBeUndefined();
    expect(await his.ownsPicture('a'.repeat(64))).toBe(false);
    expect(await hers.ownsPicture('a'.repeat(64))).toBe(true);
    expect((await his.changesAfter(0)).records.items).toEqual([]);
    const [change] = await push(his, {
      type: 'choose',
      id: uuidv7(),
      itemId: mutation.itemId,
      stamp: clock.next(),
      set: { stage: 'let-go' },
    });
    expect(change?.outcome).toBe('refused');
    // The same client-made id in another account is another item.
    const [own] = await push(his, { ...mutation, address: 'https://example.org/own' });
    expect(own?.outcome).toBe('applied');
    expect((await hers.item(mutation.itemId))?.address).toBe('https://example.org/secret');
  });
});

describe('taking in what a device sends', () => {
  it('gives the first item back for the same page, moved to the top', async () => {
    const library = await account('a@example.org');
    const first = save('https://example.org/a?utm_source=x');
    await push(library, first, save('https://example.org/b'));
    now += 60_000;
    const again = save('http://EXAMPLE.org:80/a#part');
    expect(await push(library, again)).toEqual([
      { outcome: 'already-saved', mutationId: again.id, itemId: first.itemId },
    ]);
    expect((await library.item(first.itemId))?.choices.raisedAt.value).toBe(now);
    expect((await library.item(again.itemId))?.capture.duplicateOf).toBe(first.itemId);
    // Repeating it is harmless, and what the device goes on to say of its own id reaches the item that stands for it.
    expect((await push(library, again))[0]?.outcome).toBe('already-saved');
    await push(library, {
      type: 'choose',
      id: uuidv7(),
      itemId: again.itemId,
      stamp: clock.next(),
      set: { stage: 'queue' },
    });
    expect((await library.item(first.itemId))?.choices.stage.value).toBe('queue');
  });

  it('refuses what it cannot read by itself, and takes the rest', async () => {
    const library = await account('a@example.org');
    const results = await push(
      library,
      { id: 'x', type: 'nonsense' },
      save('javascript:alert(1)'),
      null,
      save('https://example.org/good'),
    );
    expect(results.map((result) => result.outcome)).toEqual(['refused', 'refused', 'refused', 'applied']);
  });

  it('makes one job of a save, however often it is sent', async () => {
    const library = await account('a@example.org');
    const mutation = save('https://example.org/a');
    await push(library, mutation, mutation);
    await push(library, mutation);
    expect(await jobRepository(database, () => now).openCount()).toBe(1);
  });

  it('does not let a clock that is years ahead decide for years', async () => {
    const library = await account('a@example.org');
    const mutation = save('https://example.org/a');
    await push(library, mutation);
    const farAhead = createClock('far', () => now + 900 * 24 * 3600 * 1000).next();
    await push(library, {
      type: 'choose',
      id: uuidv7(),
      itemId: mutation.itemId,
      stamp: farAhead,
      set: { stage: 'kept' },
    });
    now += 1000;
    await push(library, {
      type: 'choose',
      id: uuidv7(),
      itemId: mutation.itemId,
      stamp: clock.next(),
      set: { stage: 'queue' },
    });
    expect((await library.item(mutation.itemId))?.choices.stage.value).toBe('queue');
  });
});

it('says of a save that comes a second time that its choices stand here, under whatever stamps', async () => {
  const library = await account('a@example.org');
  const ahead = createClock('far', () => now + FUTURE_TOLERANCE_MS + 60_000).next();
  const mutation = { ...save('https://example.org/a'), stamp: ahead };
  const [first] = await push(library, mutation);
  expect(first).toMatchObject({ outcome: 'applied', stamp: expect.stringContaining('-far') as string });
  // The answer is lost; by the time of the next try that clock is no longer too far ahead.
  now += 120_000;
  const [second] = await push(library, mutation);
  expect(second).toMatchObject({ outcome: 'applied', stamp: NEVER });
  expect((await library.item(mutation.itemId))?.choices.stage.at).toBe((first as { stamp: string }).stamp);
});

describe('jobs', () => {
  it('are taken once, oldest first, and those under way when the process ended are taken again', async () => {
    const library = await account('a@example.org');
    await push(library, save('https://example.org/1'), save('https://example.org/2'), save('https://example.org/3'));
    const jobs = jobRepository(database, () => now);
    const quick = jobs.lane('quick');
    const [taken] = await Promise.all([quick.take(2), quick.take(2)]);
    expect(taken).toHaveLength(2);
    expect(await quick.take(5)).toEqual([]);
    expect(await jobs.recover()).toBe(3);
    const retaken = await quick.take(5);
    expect(retaken.map((job) => [job.attempts, job.crashes])).toEqual(Array(3).fill([2, 1]));
  });

  it('are not many of one site at once: those of others come before, and what is given is of none', async () => {
    const library = await account('a@example.org');
    const slow = Array.from({ length: 6 }, (_, n) => save(`https://slow.example/${n}`));
    const part = { ...save('https://slow.example/part'), howMuch: 'selected-part' as const };
    await push(library, ...slow);
    now += 1;
    await push(library, save('https://other.example/'), part);
    const given = { type: 'text/plain' as const, body: 'A part of it.', encoding: 'utf8' as const };
    await push(library, { type: 'provide', id: uuidv7(), itemId: part.itemId, stamp: clock.next(), given });
    const quick = jobRepository(database, () => now).lane('quick');
    const takenOf = async (limit: number) => {
      const jobs = await quick.take(limit);
      return Promise.all(jobs.map(async (job) => [job, (await library.item(job.itemId))?.address] as const));
    };
    const taken = await takenOf(10);
    expect(taken.map(([, address]) => address)).toEqual([
      ...slow.slice(0, MOST_OF_A_SITE).map(({ address }) => address),
      'https://other.example/',
      'https://slow.example/part',
    ]);
    expect(await takenOf(10)).toEqual([]);
    // One that has ended makes room for one.
    await library.change((write) => write.endJob(taken[0]![0].id, 'done', now));
    expect((await takenOf(10)).map(([, address]) => address)).toEqual([slow[MOST_OF_A_SITE]?.address]);
  });

  it('wait until they are due', async () => {
    const library = await account('a@example.org');
    await push(library, save('https://example.org/1'));
    const jobs = jobRepository(database, () => now).lane('quick');
    const [job] = await jobs.take(1);
    await library.change((write) => write.postponeJob(job?.id ?? '', now + 5000, now));
    expect(await jobs.take(1)).toEqual([]);
    expect(await jobs.nextDue()).toBe(now + 5000);
    now += 5000;
    expect(await jobs.take(1)).toHaveLength(1);
  });

  it('whose end was never written are due again when nobody says for a while that they are being run', async () => {
    const library = await account('a@example.org');
    await push(library, save('https://example.org/1'), save('https://example.org/2'));
    const jobs = jobRepository(database, () => now).lane('quick');
    const [held, lost] = await jobs.take(2);
    now += LEASE_MS - 1000;
    await jobs.hold([held?.id ?? '']);
    now += 1000;
    expect((await jobs.take(5)).map(({ id }) => id)).toEqual([lost?.id]);
  });

  it('that run when the server is ended in good order are not taken to have ended it', async () => {
    const library = await account('a@example.org');
    await push(library, save('https://example.org/1'));
    const jobs = jobRepository(database, () => now);
    await jobs.lane('quick').take(1);
    await jobs.release();
    expect(await jobs.recover()).toBe(0);
    expect(await jobs.lane('quick').take(1)).toMatchObject([{ crashes: 0, attempts: 2 }]);
  });

  it('that are long wait among their like, and what was tried before does not count', async () => {
    const library = await account('a@example.org');
    await push(library, save('https://example.org/1'), save('https://example.org/2'));
    const jobs = jobRepository(database, () => now);
    const [job] = await jobs.lane('quick').take(1);
    await library.change((write) => write.toLongLane(job?.id ?? '', now));
    expect(await jobs.lane('quick').take(5)).toHaveLength(1);
    expect(await jobs.lane('long').take(5)).toMatchObject([{ id: job?.id, attempts: 1, lane: 'long' }]);
  });
});

describe('accounts', () => {
  it('of an empty library: of many who come at once, one makes it', async () => {
    const accounts = accountRepository(database, () => now);
    const made = await Promise.all(
      Array.from({ length: 8 }, (_, n) => accounts.createFirst(`r${n}@example.org`, 'R', 'a long enough passphrase')),
    );
    expect(made.filter((each) => each !== null)).toHaveLength(1);
    expect(await accounts.count()).toBe(1);
  });

  it('are one to a mail address, and hashed with argon2id', async () => {
    await account('a@example.org');
    expect(
      await accountRepository(database, () => now).create('a@example.org', 'B', 'another long passphrase'),
    ).toBeNull();
    const [row] = await database.read.all<{ passphrase_hash: string }>(sql`select passphrase_hash from accounts`);
    // PHC string format; parameters of OWASP's Password Storage Cheat Sheet.
    expect(row?.passphrase_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });
});

describe('a full disk', () => {
  it('fails a change as a whole, is known for what it is, and leaves the library sound', async () => {
    const library = await account('a@example.org');
    await push(library, save('https://example.org/1'));
    const [{ page_count: pages } = { page_count: 0 }] = await database.read.all<{ page_count: number }>(
      sql`PRAGMA page_count`,
    );
    const failure = await database
      .write(async (tx) => {
        // The nearest thing to a full disk that SQLite can be told to have: no page more than there are.
        await tx.run(sql.raw(`PRAGMA max_page_count = ${pages}`));
        await tx.run(sql`create table filler (words text)`);
        await tx.run(sql`insert into filler values (${'x'.repeat(1_000_000)})`);
      })
      .catch((error: unknown) => error);
    expect(isDiskFull(failure)).toBe(true);
    expect((await library.changesAfter(0)).records.items).toHaveLength(1);
    const check = await database.read.all<{ integrity_check: string }>(sql`PRAGMA integrity_check`);
    expect(check.map((row) => row.integrity_check)).toEqual(['ok']);
  });
});
