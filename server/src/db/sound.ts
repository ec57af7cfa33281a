import { closeSync, existsSync, openSync, readSync, statSync } from 'node:fs';
import { openFiles, type PicturesPlace } from '../files/open';
import { type Database, isDamaged, openDatabase } from './open';
import { accounts } from './schema';

/** A library that must not be opened as it is. `message` says what is wrong, and what brings it back. */
export class NotSound extends Error {
  override readonly name = 'NotSound';
}

const RESTORE = 'Stop here, and bring it back: npm run restore -- FOLDER-OF-THE-BACKUP';

interface Place extends PicturesPlace {
  databaseUrl: string;
  migrationsFolder: string;
}

/**
 * Opens a library's database, but only when it is there if its pictures are, and is a whole one: otherwise a library
 * whose database was lost would begin again, open to whoever comes first.
 *
 * @throws NotSound; whatever else keeps a file from being opened
 */
export async function openSound(place: Place): Promise<Database> {
  const { databaseUrl, migrationsFolder } = place;
  // A database that is elsewhere can only be asked once it is open.
  const file = databaseUrl.startsWith('file:') ? databaseUrl.slice('file:'.length) : null;
  const isThere = file === null || (existsSync(file) && statSync(file).size > 0);
  const lost = new NotSound(
    `The database is missing or empty, but its pictures are there: ${file ?? databaseUrl}\n${RESTORE}\nTo begin a new library, move the folder with the old one away first.`,
  );
  if (!isThere && (await hasPictures(place))) throw lost;
  if (file !== null && isThere) refuseCutOff(file);
  try {
    const database = await openDatabase(databaseUrl, migrationsFolder);
    const [any] = await database.read.select({ id: accounts.id }).from(accounts).limit(1);
    if (any || !(await hasPictures(place))) return database;
    database.close();
  } catch (error) {
    if (!isDamaged(error)) throw error;
    throw new NotSound(`The database is damaged: ${file ?? databaseUrl}\n${RESTORE}`);
  }
  throw lost;
}

async function hasPictures(place: PicturesPlace): Promise<boolean> {
  const { done } = await openFiles(place).list().next();
  return done !== true;
}

/** The header of the file says how long it has to be (SQLite Database File Format, 1.3). @throws NotSound */
function refuseCutOff(file: string): void {
  const header = Buffer.alloc(100);
  const opened = openSync(file, 'r');
  try {
    readSync(opened, header, 0, 100, 0);
  } finally {
    closeSync(opened);
  }
  if (header.toString('latin1', 0, 16) !== 'SQLite format 3\0')
    throw new NotSound(`This is not a database: ${file}\n${RESTORE}`);
  const pageSize = header.readUInt16BE(16) === 1 ? 65_536 : header.readUInt16BE(16);
  // The number of pages counts only when it was written by the last change.
  const isCurrent = header.readUInt32BE(24) === header.readUInt32BE(92);
  if (isCurrent && statSync(file).size < pageSize * header.readUInt32BE(28))
    throw new NotSound(`The database has been cut off; a part of it is missing: ${file}\n${RESTORE}`);
}
