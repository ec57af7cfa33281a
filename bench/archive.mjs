// npm run bench -- archive: a library of invented texts out as one file, and in again into an empty one.
import { execFileSync } from 'node:child_process';
import { createWriteStream, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';

const here = fileURLToPath(import.meta.url);
const root = path.resolve(path.dirname(here), '..');
const WORDS = 1800;

if (process.argv[2] === 'one') await one(process.argv[3], Number(process.argv[4]), process.argv[5]);
else {
  console.log(
    `A library of invented texts of ${WORDS} words out as one archive, and in again (each in a process of its own)\n`,
  );
  console.log(
    '| items | out: first bytes, ms | s | MB | memory at rest → peak, MB | in: s | memory at rest → peak, MB |',
  );
  console.log('|---|---|---|---|---|---|---|');
  for (const items of [1000, 10_000]) {
    const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-bench-'));
    try {
      const run = (step) =>
        JSON.parse(
          execFileSync(process.execPath, ['--import', 'tsx', here, 'one', step, String(items), folder], {
            cwd: root,
            encoding: 'utf8',
            maxBuffer: 1e8,
          })
            .trim()
            .split('\n')
            .at(-1),
        );
      run('fill');
      const out = run('out');
      const back = run('in');
      console.log(
        `| ${items} | ${out.first} | ${out.seconds} | ${out.megabytes} | ${out.rest} → ${out.peak} | ${back.seconds} | ${back.rest} → ${back.peak} |`,
      );
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
}

async function one(step, items, folder) {
  const server = (name) => import(path.join(root, 'server/src', name));
  const { openDatabase } = await server('db/open.ts');
  const { accountRepository } = await server('accounts/accounts.ts');
  const { libraryOf } = await server('library/library.ts');
  const { folderStore } = await server('files/files.ts');
  const open = async (name) => {
    const database = await openDatabase(`file:${folder}/${name}.db`, path.join(root, 'server/src/db/migrations'));
    const accounts = accountRepository(database, Date.now);
    const known = await accounts.create('a@example.org', 'A', 'a long enough passphrase').catch(() => null);
    const { accounts: table } = await server('db/schema.ts');
    const [row] = await database.read.select({ id: table.id }).from(table);
    const account = { id: known?.id ?? row.id, mail: 'a@example.org', name: 'A' };
    return { database, account, library: libraryOf(database, account.id), files: folderStore(`${folder}/${name}`) };
  };
  const megabytes = (bytes) => Math.round(bytes / 1e6);
  const watched = async (work) => {
    globalThis.gc?.();
    const rest = process.memoryUsage().rss;
    let peak = rest;
    const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 50);
    const begun = performance.now();
    const more = await work(begun);
    clearInterval(watch);
    const seconds = Number(((performance.now() - begun) / 1000).toFixed(1));
    return { rest: megabytes(rest), peak: megabytes(peak), seconds, ...more };
  };
  if (step === 'fill') {
    await fill(await open('from'), items);
    console.log('{}');
  } else if (step === 'out') {
    const { archiveFiles } = await server('archive/out.ts');
    const { packed } = await server('archive/pack.ts');
    const from = await open('from');
    const file = `${folder}/archive.zip`;
    const told = await watched(async (begun) => {
      let first = 0;
      const bytes = packed(archiveFiles(from.account, { ...from, now: Date.now() }), Date.now());
      bytes.once('data', () => (first = Math.round(performance.now() - begun)));
      await pipeline(bytes, createWriteStream(file));
      return { first, megabytes: megabytes(statSync(file).size) };
    });
    console.log(JSON.stringify(told));
  } else {
    const { openArchive } = await server('archive/read.ts');
    const { goThrough } = await server('archive/in.ts');
    const { createClock } = await import(path.join(root, 'core/src/sync/index.ts'));
    const to = await open('to');
    const archive = await openArchive(`${folder}/archive.zip`);
    const parts = { ...to, clock: createClock('server', Date.now), now: Date.now };
    const going = { brings: true, step: () => undefined, isWanted: () => true };
    const told = await watched(async () => ({ faults: (await goThrough(archive, parts, going)).faultCount }));
    if (told.faults > 0) throw new Error(`${told.faults} were not brought in`);
    console.log(JSON.stringify(told));
  }
  process.exit(0);
}

/** The same words each time: a generator with a seed, after Lehmer. */
async function fill({ library }, items) {
  const { newItem, itemKind } = await import(path.join(root, 'core/src/records/index.ts'));
  const { createClock } = await import(path.join(root, 'core/src/sync/index.ts'));
  const { pageFrom } = await import(path.join(root, 'core/src/testing/pages.ts'));
  const clock = createClock('bench', Date.now);
  let seed = 7;
  const next = (most) => (seed = (seed * 48_271) % 2_147_483_647) % most;
  const syllables = 'ta ren mo li sa ke dor ul ve an is or pe tu ga'.split(' ');
  const word = () => Array.from({ length: 1 + next(3) }, () => syllables[next(syllables.length)]).join('');
  const vocabulary = Array.from({ length: 8000 }, word);
  const words = (count) => Array.from({ length: count }, () => vocabulary[Math.min(next(8000), next(8000))]).join(' ');
  const id = (n, kind) => `019a0000-0000-7000-8${kind}00-${String(n).padStart(12, '0')}`;
  for (let start = 0; start < items; start += 50)
    await library.change(async (write) => {
      for (let n = start; n < Math.min(start + 50, items); n++) {
        const save = {
          ...{
            type: 'save',
            id: id(n, 1),
            itemId: id(n, 2),
            stamp: clock.next(),
            savedAt: 1_700_000_000_000 + n * 60_000,
          },
          address: `https://bench.example/${n}`,
        };
        const item = itemKind.apply(undefined, save) ?? newItem(save);
        const title = words(6);
        item.capture.state = 'arrived';
        item.capture.page = pageFrom({ title, copyId: id(n, 3), language: 'en', minutes: 8, wordCount: WORDS });
        const paragraph = () => ({
          ...{ type: 'element', tagName: 'p', properties: {} },
          children: [{ type: 'text', value: `${words(90)}.` }],
        });
        const tree = { type: 'root', children: Array.from({ length: WORDS / 90 }, paragraph) };
        // What it is found by is made when it comes in.
        await write.putCopy({ id: id(n, 3), itemId: item.id, madeAt: 1, title, language: 'en', hash: null, tree }, '');
        await write.put(item);
      }
    });
}
