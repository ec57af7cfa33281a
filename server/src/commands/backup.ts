import { copyFile, mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import { readConfig } from '../config';
import { copyInto, markRestored } from '../db/backup';
import { pictures } from '../db/schema';
import { openSound } from '../db/sound';
import { type FileStore, folderStore, hashOf } from '../files/files';
import { openFiles } from '../files/open';

/** What a backup says of itself; written last, so that a backup without it is not one. */
const Manifest = z.object({
  is: z.literal('dorvel-backup'),
  madeAt: z.string(),
  pictures: z.number().int(),
});
const MANIFEST = 'backup.json';
const DATABASE = 'dorvel.db';

/**
 * `npm run backup -- FOLDER` copies the library into a folder, also while the server runs; a second time into the same
 * folder only what is new. `npm run restore -- FOLDER` puts it back; what was there is kept beside it.
 */
const [does, given] = process.argv.slice(2);
const config = readConfig(process.env, path.resolve(import.meta.dirname, '../../..'));
// npm runs scripts in the workspace's folder; the reader's own is where the path is meant.
const folder = given && path.resolve(process.env.INIT_CWD ?? process.cwd(), given);
if (!folder || (does !== 'backup' && does !== 'restore'))
  end('Usage: npm run backup -- FOLDER, npm run restore -- FOLDER', 2);
if (!config.databaseUrl.startsWith('file:')) end('Only a database in a file can be backed up so.', 2);
const file = config.databaseUrl.slice('file:'.length);
await (does === 'backup' ? backUp(folder) : restore(folder));

function end(says: string, code: number): never {
  (code === 0 ? process.stdout : process.stderr).write(`${says}\n`);
  process.exit(code);
}

async function backUp(into: string): Promise<void> {
  const database = await openSound(config);
  await mkdir(into, { recursive: true });
  await rm(path.join(into, MANIFEST), { force: true });
  const unfinished = path.join(into, `${DATABASE}.unfinished`);
  await rm(unfinished, { force: true });
  await copyInto(database, unfinished);
  await rename(unfinished, path.join(into, DATABASE));
  const [from, to] = [openFiles(config), folderStore(path.join(into, 'pictures'))];
  const hashes = await database.read.selectDistinct({ hash: pictures.hash }).from(pictures);
  let kept = 0;
  for (const { hash } of hashes) if (await copyWhole(hash, from, to)) kept++;
  database.close();
  const manifest = { is: 'dorvel-backup', madeAt: new Date().toISOString(), pictures: kept } as const;
  await writeFile(path.join(into, MANIFEST), JSON.stringify(Manifest.parse(manifest)));
  const missing = hashes.length - kept;
  end(
    `The library is in ${into}, with ${kept} pictures${missing === 0 ? '' : `; ${missing} pictures are missing here`}.`,
    0,
  );
}

/** Copies a picture unless it is there already. @returns false when there is none to copy, or it is damaged */
async function copyWhole(hash: string, from: FileStore, to: FileStore): Promise<boolean> {
  const size = await from.sizeOf(hash);
  if (size === null) return false;
  if ((await to.sizeOf(hash)) === size) return true;
  const bytes = await from.read(hash);
  if (bytes === null || hashOf(bytes) !== hash) return false;
  await to.put(bytes);
  return true;
}

async function restore(from: string): Promise<void> {
  const manifest = Manifest.safeParse(
    JSON.parse(await readFile(path.join(from, MANIFEST), 'utf8').catch(() => 'null')),
  );
  if (!manifest.success) end(`There is no whole backup in ${from}.`, 1);
  await refuseWhileRunning();
  const aside = path.join(config.dataFolder, `before-restore-${new Date().toISOString().replace(/[:.]/g, '-')}`);
  await mkdir(aside, { recursive: true });
  const move = (name: string) => rename(name, path.join(aside, path.basename(name))).catch(missingIsFine);
  // What was written last may stand in the log beside the database only.
  for (const name of [file, `${file}-wal`, `${file}-shm`, config.picturesFolder]) await move(name);
  const unfinished = `${file}.unfinished`;
  await copyFile(path.join(from, DATABASE), unfinished);
  const hashes = await markRestored(unfinished);
  const [source, target] = [folderStore(path.join(from, 'pictures')), openFiles(config)];
  for (const hash of hashes) await copyWhole(hash, source, target);
  await rename(unfinished, file);
  end(
    `The library is as it was on ${manifest.data.madeAt}. What was here before is in ${aside}.\nDevices fetch it anew when they come next, and send again what they have.`,
    0,
  );
}

function missingIsFine(error: NodeJS.ErrnoException): void {
  if (error.code !== 'ENOENT') throw error;
}

/** Two must not have the database at once, of whom one does not know of the other. */
async function refuseWhileRunning(): Promise<void> {
  const answers = await fetch(`http://${config.host}:${config.port}/healthz`).then(
    () => true,
    () => false,
  );
  if (answers) end(`A server is running at ${config.host}:${config.port}. End it first.`, 1);
}
