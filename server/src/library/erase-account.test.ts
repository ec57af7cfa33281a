import type { Account } from '@dorvel/core/model';
import { changeMaker } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { eraseAccount } from './erase-account';
import { findableLibrary } from './findable';
import { libraryOf } from './library';
import { takePush } from './take-mutations';
import { openTestLibrary } from './test-library.test-data';

const clock = createClock('test', Date.now);
const make = changeMaker({ clock, newId: uuidv7, now: Date.now });
const [SHARED, OWN] = ['a'.repeat(64), 'b'.repeat(64)];

let house: Awaited<ReturnType<typeof openTestLibrary>>;
let other: Account;
beforeEach(async () => {
  house = await openTestLibrary();
  other = (await accountRepository(house.database, Date.now).create('b@example.org', 'B', 'a long enough passphrase'))!;
});
afterEach(() => house.close());

/** How many rows a table has of an account, for every table that has any. */
async function rowsOf(accountId: string): Promise<Record<string, number>> {
  const tables = await house.database.read.all<{ name: string }>(
    sql`select m.name from sqlite_schema m join pragma_table_info(m.name) c on c.name = 'account_id' where m.type = 'table'`,
  );
  const counts: Record<string, number> = {};
  for (const { name } of tables) {
    const [row] = await house.database.read.all<{ n: number }>(
      sql`select count(*) as n from ${sql.identifier(name)} where account_id = ${accountId}`,
    );
    counts[name] = row?.n ?? 0;
  }
  return counts;
}

/** Puts a row of an account into every table that names one and has none yet. */
async function fill(accountId: string): Promise<void> {
  for (const [table, count] of Object.entries(await rowsOf(accountId))) {
    if (count > 0) continue;
    const columns = await house.database.read.all<{ name: string; type: string }>(
      sql`select name, type from pragma_table_info(${table})`,
    );
    const values = columns.map(({ name, type }) =>
      name === 'account_id'
        ? accountId
        : type.toLowerCase() === 'text'
          ? `"${accountId} ${table}"`
          : Math.trunc(1e9 * Math.random()),
    );
    const list = (parts: readonly unknown[]) =>
      sql.join(
        parts.map((part) => sql`${part}`),
        sql`, `,
      );
    await house.database.write((tx) => tx.run(sql`insert into ${sql.identifier(table)} values (${list(values)})`));
  }
}

it('leaves nothing of an account in any table, and of others all that they have', async () => {
  for (const id of [house.accountId, other.id]) {
    const library = libraryOf(house.database, id);
    const { results } = await takePush(
      library,
      { mutations: [make.save({ address: 'https://x.example/eelgrass' })] },
      { clock, now: Date.now },
    );
    expect(results).toMatchObject([{ outcome: 'applied' }]);
    await library.change((write) =>
      write.putPictures([{ hash: SHARED, bytes: 1 }, ...(id === house.accountId ? [{ hash: OWN, bytes: 1 }] : [])]),
    );
    await fill(id);
  }
  const before = await rowsOf(other.id);
  expect(Object.keys(before).length).toBeGreaterThan(18);
  expect(Object.values(before).every((count) => count > 0)).toBe(true);

  expect(await eraseAccount(house.database, house.accountId)).toEqual([OWN]);

  expect(Object.entries(await rowsOf(house.accountId)).filter(([, count]) => count > 0)).toEqual([]);
  expect(await rowsOf(other.id)).toEqual(before);
  const named = await house.database.read.all(
    sql`select name from sqlite_schema where name like ${`%${house.accountId.replaceAll('-', '')}%`}`,
  );
  expect(named).toEqual([]);
  expect(await house.database.read.all(sql`pragma foreign_key_check`)).toEqual([]);
  expect(await accountRepository(house.database, Date.now).byId(house.accountId)).toBeNull();
  expect((await findableLibrary(house.database, other.id).facts()).size).toBeGreaterThan(0);
});

it('is done once: what is gone is not there to be erased', async () => {
  await eraseAccount(house.database, house.accountId);
  expect(await eraseAccount(house.database, house.accountId)).toEqual([]);
});
