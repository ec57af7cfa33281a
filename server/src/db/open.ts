import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { createClient } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import * as schema from './schema';

type Drizzle = LibSQLDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Drizzle['transaction']>[0]>[0];

/** The library's database. Reads go straight to `read`; everything that writes goes through `write`. */
export interface Database {
  readonly read: Drizzle;
  /**
   * Runs `work` in one transaction. SQLite has one writer at a time; queueing here, in the only process
   * that writes, is what keeps "database is locked" from ever reaching a reader.
   */
  write<Result>(work: (tx: Transaction) => Promise<Result>): Promise<Result>;
  close(): void;
}

/** Opens and migrates the database. @throws when the file cannot be opened or a migration fails */
export async function openDatabase(url: string, migrationsFolder: string): Promise<Database> {
  if (url.startsWith('file:')) mkdirSync(path.dirname(url.slice('file:'.length)), { recursive: true });
  const client = createClient({ url, timeout: 5000 });
  const read = drizzle(client, { schema });
  await read.run(sql`PRAGMA journal_mode = WAL`);
  await migrate(read, { migrationsFolder });
  let last: Promise<unknown> = Promise.resolve();
  return {
    read,
    write(work) {
      const next = last.then(() => read.transaction(work, { behavior: 'immediate' }));
      // The queue goes on after a failed write; the failure itself goes to whoever asked for it.
      last = next.catch(() => undefined);
      return next;
    },
    close: () => client.close(),
  };
}
