import { randomUUID } from 'node:crypto';
import { createClient } from '@libsql/client';
import { sql } from 'drizzle-orm';
import type { Database } from './open';

/** Writes a whole and compact copy as of one moment, whatever is written meanwhile (SQLite, VACUUM INTO). @param file is not there yet */
export async function copyInto(database: Database, file: string): Promise<void> {
  await database.read.run(sql`vacuum into ${file}`);
}

/** After a restoring, so far ahead of all that devices know that what they hear then is new to them. */
const SEQUENCE_STEP = 1_000_000_000;

/**
 * Makes of the file of a backup a library that says it was set back: devices fetch it anew, and send again what they have.
 *
 * @returns hashes of the pictures that belong to it
 */
export async function markRestored(file: string): Promise<string[]> {
  const client = createClient({ url: `file:${file}` });
  await client.execute('pragma journal_mode = delete');
  await client.batch(
    [
      { sql: 'update libraries set epoch = ?', args: [randomUUID()] },
      { sql: 'update accounts set sequence = sequence + ?', args: [SEQUENCE_STEP] },
    ],
    'write',
  );
  const { rows } = await client.execute('select distinct hash from pictures');
  client.close();
  return rows.flatMap(({ hash }) => (typeof hash === 'string' ? [hash] : []));
}
