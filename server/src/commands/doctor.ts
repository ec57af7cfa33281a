import { appendFileSync } from 'node:fs';
import path from 'node:path';
import { Item } from '@dorvel/core/model';
import { sql } from 'drizzle-orm';
import { readConfig } from '../config';
import { copies, items, jobs, pictures } from '../db/schema';
import { NotSound, openSound } from '../db/sound';
import { openFiles } from '../files/open';
import { examine } from '../library/mend';

/**
 * Checks a library at rest: the database's integrity, every record, every picture's file, the row of jobs. With `--mend`
 * it puts records right that are out of bounds; those that cannot be read at all it takes out, into a file beside the
 * database.
 */
const STRAY_AFTER_MS = 60 * 60 * 1000;
const config = readConfig(process.env, path.resolve(import.meta.dirname, '../../..'));
const mends = process.argv.includes('--mend');
const database = await openSound(config).catch((error: unknown) => {
  if (!(error instanceof NotSound)) throw error;
  console.log(`WRONG  ${error.message}`);
  process.exit(1);
});
const files = openFiles(config);
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

for (const { what, plural, count, faults } of await examine(database)) {
  for (const { accountId, id, cut, record, mend } of mends ? faults : []) {
    if (cut === null)
      appendFileSync(
        path.join(config.dataFolder, 'set-aside.jsonl'),
        `${JSON.stringify({ what, accountId, id, record })}\n`,
      );
    await mend();
    console.log(`mended ${what} ${id}${cut === null ? ': set aside in set-aside.jsonl' : `: ${cut.join(', ')}`}`);
  }
  report(
    `${count} ${plural}`,
    mends
      ? []
      : faults.map(({ id, cut }) =>
          cut === null ? `${what} ${id} cannot be read` : `${what} ${id} is out of bounds: ${cut.join(', ')}`,
        ),
  );
}
const itemRows = await database.read.select({ id: items.id, record: items.record }).from(items);
const copyRows = await database.read.select({ id: copies.id }).from(copies);
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

// What a capture that broke off, or an account that was erased meanwhile, left behind. It may be of one under way: an hour is left to it.
const known = new Set(pictureRows.map(({ hash }) => hash));
let [strays, strayBytes] = [0, 0];
for await (const file of files.list()) {
  if ((file.hash !== null && known.has(file.hash)) || Date.now() - file.writtenAt < STRAY_AFTER_MS) continue;
  strays += 1;
  strayBytes += file.bytes;
  if (mends) await file.remove();
}
if (strays > 0)
  console.log(
    `       ${strays} files that no account has any more, ${Math.ceil(strayBytes / 1000)} kB${mends ? ', taken away' : ': npm run doctor -- --mend takes them away'}`,
  );

const open = (await database.read.select().from(jobs)).filter(
  (job) => job.state === 'waiting' || job.state === 'running',
);
const knownItems = new Set(itemRows.map((row) => row.id));
report(
  `${open.length} captures pending`,
  open.filter((job) => !knownItems.has(job.itemId)).map((job) => `capture ${job.id} has no item`),
);
database.close();
console.log(
  wrong === 0
    ? 'All is well.'
    : `${wrong} faults found.${mends ? '' : ' npm run doctor -- --mend puts records right.'}`,
);
process.exit(wrong === 0 ? 0 : 1);
