import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
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
  /** Of the library as it is stored: another one after it was restored from a backup. */
  readonly epoch: string;
  /** Whether other processes may work on it at the same time: a server of databases, not a file. */
  readonly isShared: boolean;
  /**
   * Runs `work` in one transaction. SQLite has one writer at a time; queueing here, in the only process
   * that writes, is what keeps "database is locked" from ever reaching a reader.
   */
  write<Result>(work: (tx: Transaction) => Promise<Result>): Promise<Result>;
  close(): void;
}

/** A lock that another process holds (a backup, a program that looks at the file) is waited for so long. */
const BUSY_LIMIT_MS = 10_000;
const MAX_WAIT_MS = 200;

/** True for errors of the database itself: it is locked, full, damaged or gone. */
export function isOfDatabase(error: unknown): boolean {
  return codesOf(error).some((code) => /^(?:SQLITE|ENOSPC|EDQUOT|EIO)/.test(code));
}

/** True when another process holds the database. */
export function isBusy(error: unknown): boolean {
  return codesOf(error).some((code) => /^SQLITE_(?:BUSY|LOCKED)/.test(code));
}

/** True when there is no room left, for a file or for the database. */
export function isDiskFull(error: unknown): boolean {
  return codesOf(error).some((code) => /^(?:ENOSPC|EDQUOT|SQLITE_FULL)/.test(code));
}

/** True when the file is no database any more, or not a whole one. */
export function isDamaged(error: unknown): boolean {
  return codesOf(error).some((code) => /^SQLITE_(?:CORRUPT|NOTADB)/.test(code));
}

function codesOf(error: unknown): string[] {
  const codes: string[] = [];
  for (let at = error; at instanceof Error; at = at.cause) if ('code' in at) codes.push(String(at.code));
  return codes;
}

/**
 * Does it again while another process holds the database. Waiting is ours and not SQLite's: that would hold up all
 * requests, as it waits on the thread that serves them.
 *
 * @param beforeAgain what is to be done before it is tried again
 */
async function patiently<Result>(work: () => Promise<Result>, beforeAgain = () => {}): Promise<Result> {
  const until = Date.now() + BUSY_LIMIT_MS;
  for (let waitMs = 10; ; waitMs = Math.min(MAX_WAIT_MS, 2 * waitMs)) {
    try {
      return await work();
    } catch (error) {
      if (!isBusy(error) || Date.now() > until) throw error;
    }
    beforeAgain();
    await sleep(waitMs);
  }
}

type Client = ReturnType<typeof createClient>;

/** A client whose calls are made again while another process holds the database. */
function patientClient(client: Client): Client {
  return new Proxy(client, {
    get(target, name) {
      const value: unknown = Reflect.get(target, name, target);
      if (typeof value !== 'function') return value;
      const bound = value.bind(target) as (...words: unknown[]) => Promise<unknown>;
      if (name === 'execute') return (...words: unknown[]) => patiently(() => bound(...words));
      // The driver leaves the statement that met the lock open, and a connection with an open statement cannot commit.
      // Of this client's transactions there is only one at a time: this one, which has not begun.
      const anew = () => {
        target.reconnect();
      };
      return name === 'transaction' ? (...words: unknown[]) => patiently(() => bound(...words), anew) : bound;
    },
  });
}

/** Opens and migrates the database. @throws when the file cannot be opened or a migration fails */
export async function openDatabase(url: string, migrationsFolder: string): Promise<Database> {
  if (url.startsWith('file:')) mkdirSync(path.dirname(url.slice('file:'.length)), { recursive: true });
  const client = () => patientClient(createClient({ url, timeout: 0 }));
  const [reader, writer] = [client(), client()];
  const read = drizzle(reader, { schema });
  const writing = drizzle(writer, { schema });
  const isShared = !url.startsWith('file:');
  // A server of databases sets this by itself, and takes no such word from outside.
  if (!isShared) await read.run(sql`PRAGMA journal_mode = WAL`);
  await migrate(read, { migrationsFolder });
  await read.insert(schema.libraries).values({ id: 1, epoch: randomUUID() }).onConflictDoNothing();
  const [library] = await read.select({ epoch: schema.libraries.epoch }).from(schema.libraries);
  if (!library) throw new Error('the library has no epoch');
  let last: Promise<unknown> = Promise.resolve();
  return {
    read,
    epoch: library.epoch,
    isShared,
    write(work) {
      const next = last.then(() => writing.transaction(work, { behavior: 'immediate' }));
      // The queue goes on after a failed write; the failure itself goes to whoever asked for it.
      last = next.catch(() => undefined);
      return next;
    },
    close() {
      reader.close();
      writer.close();
    },
  };
}
