import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { Account } from '@dorvel/core/model';
import { openDatabase } from '../db/open';
import { openFiles, type PicturesPlace } from '../files/open';
import { libraryOf } from '../library/library';
import { archiveFiles } from './out';
import { packed } from './pack';

/** An archive that is to be made. */
export interface ArchiveTask extends PicturesPlace {
  account: Account;
  databaseUrl: string;
  migrationsFolder: string;
  /** The file that it is written to. */
  file: string;
  /** Milliseconds since 1970. */
  madeAt: number;
}

/** Writes the archive of a library into a file. @returns its size in bytes */
export default async function makeArchive(task: ArchiveTask): Promise<number> {
  const { account, file, madeAt } = task;
  const database = await openDatabase(task.databaseUrl, task.migrationsFolder);
  try {
    const parts = {
      database,
      library: libraryOf(database, account.id),
      files: openFiles(task),
      now: madeAt,
    };
    const into = createWriteStream(file, { mode: 0o600 });
    await pipeline(packed(archiveFiles(account, parts), madeAt), into);
    return into.bytesWritten;
  } finally {
    database.close();
  }
}
