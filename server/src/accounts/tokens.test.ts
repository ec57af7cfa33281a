import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Database, openDatabase } from '../db/open';
import { tokens } from '../db/schema';
import { accountRepository } from './accounts';
import { tokenRepository } from './tokens';

let folder: string;
let database: Database;
let now = 1_000_000;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
});
afterEach(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

it('lets its holder in for one account until it is revoked by that account, and is kept as a hash', async () => {
  const accounts = accountRepository(database, () => now);
  const one = await accounts.create('a@example.org', 'A', 'a long enough passphrase');
  const two = await accounts.create('b@example.org', 'B', 'a long enough passphrase');
  if (!one || !two) throw new Error('no accounts');
  const repository = tokenRepository(database, () => now);
  const { token, secret } = await repository.make(one.id, 'A desk', 'save');
  expect(JSON.stringify(await database.read.select().from(tokens))).not.toContain(secret);

  expect((await repository.use(secret, 'save'))?.account).toEqual(one);
  now += 30_000;
  await repository.use(secret, 'save');
  expect(await repository.list(one.id)).toEqual([{ ...token, lastUsedAt: 1_000_000 }]);
  now += 30_000;
  await repository.use(secret, 'save');
  expect((await repository.list(one.id))[0]?.lastUsedAt).toBe(now);
  expect(await repository.use(`${secret}x`, 'save')).toBeNull();

  expect(await repository.list(two.id)).toEqual([]);
  expect(await repository.revoke(two.id, token.id)).toBeNull();
  expect((await repository.use(secret, 'save'))?.account).toEqual(one);
  expect(await repository.revoke(one.id, token.id)).toBe('A desk');
  expect(await repository.use(secret, 'save')).toBeNull();

  const kept = await repository.make(two.id, 'B desk', 'save');
  const made = [await repository.make(one.id, 'A phone', 'save'), await repository.make(one.id, 'A browser', 'save')];
  expect((await repository.revokeAll(one.id)).sort()).toEqual(['A browser', 'A phone']);
  for (const each of made) expect(await repository.use(each.secret, 'save')).toBeNull();
  expect((await repository.use(kept.secret, 'save'))?.account).toEqual(two);
});
