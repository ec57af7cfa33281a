import path from 'node:path';
import { Activity, Copy, Item } from '@dorvel/core/model';
import { sql } from 'drizzle-orm';
import { folderStore } from './capture/files';
import { readConfig } from './config';
import { openDatabase } from './db/open';
import { activities, copies, items, jobs, pictures } from './db/schema';

/** Checks a library at rest: the database's integrity, every record, every picture's file, the row of jobs. */
const config = readConfig(process.env, path.resolve(import.meta.dirname, '../..'));
const database = await openDatabase(config.databaseUrl, config.migrationsFolder);
const files = folderStore(path.join(config.dataFolder, 'pictures'));
let wrong = 0;
const report = (what: string, faults: string[]) => {
  wrong += faults.length;
  console.log(`${faults.length === 0 ? 'sound' : 'WRONG'}  ${what}`);
  for (const fault of faults.slice(0, 20)) console.log(`       ${fault}`);
};

const integrity = (await database.read.all<{ integrity_check: string }>(sql`PRAGMA integrity_check`)).map(
  (row) => row.integrity_check,
);
report(
  'database integrity',
  integrity.filter((line) => line !== 'ok'),
);
const broken = (await database.read.all<{ table: string }>(sql`PRAGMA foreign_key_check`)).map(
  (row) => `a row of ${row.table} points nowhere`,
);
report('references between tables', broken);

const itemRows = await database.read.select({ id: items.id, record: items.record }).from(items);
report(
  `${itemRows.length} items`,
  itemRows.filter((row) => !Item.safeParse(row.record).success).map((row) => `item ${row.id} cannot be read`),
);
const activityRows = await database.read
  .select({ id: activities.id, record: activities.record })
  .from(activities);
report(
  `${activityRows.length} sittings`,
  activityRows
    .filter((row) => !Activity.safeParse(row.record).success)
    .map((row) => `sitting ${row.id} cannot be read`),
);
const copyRows = await database.read.select({ id: copies.id, record: copies.record }).from(copies);
report(
  `${copyRows.length} copies`,
  copyRows.filter((row) => !Copy.safeParse(row.record).success).map((row) => `copy ${row.id} cannot be read`),
);
const copyIds = new Set(copyRows.map((row) => row.id));
const missingCopies = itemRows.filter((row) => {
  const copyId = Item.safeParse(row.record).data?.capture.page?.copyId;
  return copyId !== undefined && copyId !== null && !copyIds.has(copyId);
});
report(
  'every item has its copy',
  missingCopies.map((row) => `the copy of item ${row.id} is missing`),
);

const pictureRows = await database.read.selectDistinct({ hash: pictures.hash }).from(pictures);
const badFiles: string[] = [];
for (const { hash } of pictureRows)
  if (!(await files.verify(hash))) badFiles.push(`picture ${hash} is missing or damaged`);
report(`${pictureRows.length} picture files`, badFiles);

const open = (await database.read.select().from(jobs)).filter(
  (job) => job.state === 'waiting' || job.state === 'running',
);
const knownItems = new Set(itemRows.map((row) => row.id));
report(
  `${open.length} captures pending`,
  open.filter((job) => !knownItems.has(job.itemId)).map((job) => `capture ${job.id} has no item`),
);
database.close();
console.log(wrong === 0 ? 'All is well.' : `${wrong} faults found.`);
process.exit(wrong === 0 ? 0 : 1);
