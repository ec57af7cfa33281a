import { createWriteStream } from 'node:fs';
import { readdir, readFile, stat, writeFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { unzipSync } from 'fflate';
import { tricked } from '../publish/handed-on.test-data';
import type { ArchiveMaker } from './maker';
import { nightlyArchives } from './nightly';
import { archiveFiles } from './out';
import { packed } from './pack';

let at: Awaited<ReturnType<typeof tricked>>;
beforeAll(async () => {
  at = await tricked();
});
afterAll(() => at.close());

let now = new Date(2026, 10, 1, 2).getTime();
const errors: unknown[] = [];
/** In this thread, where the server has one for it. */
const maker: ArchiveMaker = {
  async make(of, file, madeAt) {
    const into = createWriteStream(file, { mode: 0o600 });
    await pipeline(packed(archiveFiles(of, { ...at, now: madeAt }), madeAt), into);
    return into.bytesWritten;
  },
  close: () => Promise.resolve(),
};
const nightly = (folder: string | null) =>
  nightlyArchives({
    ...{ database: at.database, maker, folder, keptDays: 3, hour: 3, now: () => now },
    log: { info: () => undefined, error: (...told: unknown[]) => errors.push(told) },
  });
const account = () => ({ id: at.accountId, mail: 'a@example.org', name: 'A' });

it('writes one a day from its hour on, readable by itself, and keeps so many days', async () => {
  const folder = `${at.folder}/nightly`;
  const archives = nightly(folder);
  await archives.makeDue();
  expect((await archives.of(account())).nightly).toEqual({ lastAt: null, bytes: null, keptDays: 3, isStuck: false });
  for (let day = 1; day <= 6; day++) {
    now = new Date(2026, 10, day, 3).getTime();
    await archives.makeDue();
    // Once more in the same night: nothing to do.
    now += 3_600_000;
    await archives.makeDue();
  }
  const [mine = ''] = await readdir(folder);
  expect(mine).toMatch(/^a@example\.org [0-9a-f]{8}$/);
  await writeFile(`${folder}/${mine}/my own.zip`, 'x');
  now = new Date(2026, 10, 7, 3).getTime();
  await archives.makeDue();
  expect((await readdir(`${folder}/${mine}`)).sort()).toEqual([
    '2026-11-05.zip',
    '2026-11-06.zip',
    '2026-11-07.zip',
    'my own.zip',
  ]);
  const last = `${folder}/${mine}/2026-11-07.zip`;
  expect(Object.keys(unzipSync(new Uint8Array(await readFile(last))))).toContain('records/items.jsonl');
  // Nobody else on the machine reads it.
  expect((await stat(last)).mode & 0o077).toBe(0);
  expect((await archives.of(account())).nightly).toMatchObject({ bytes: (await stat(last)).size, isStuck: false });
  expect(errors).toEqual([]);
});

it('says when it cannot, and is none where none is wanted', async () => {
  const file = `${at.folder}/a-file`;
  await writeFile(file, 'x');
  const archives = nightly(file);
  await archives.makeDue();
  expect((await archives.of(account())).nightly).toMatchObject({ isStuck: true, lastAt: null });
  expect(errors).toHaveLength(1);
  const none = nightly(null);
  await none.makeDue();
  expect(await none.of(account())).toEqual({ nightly: null });
});
