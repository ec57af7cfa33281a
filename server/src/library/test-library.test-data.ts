import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { accountRepository } from '../accounts/accounts';
import { openDatabase } from '../db/open';
import { libraryOf } from './library';

/** A database in a folder of its own with one account in it, and what takes both away. */
export async function openTestLibrary(now: () => number = Date.now) {
  const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  const database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
  const account = await accountRepository(database, now).create('a@example.org', 'A', 'a long enough passphrase');
  if (!account) throw new Error('the account was not made');
  return {
    folder,
    database,
    accountId: account.id,
    library: libraryOf(database, account.id),
    close() {
      database.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
