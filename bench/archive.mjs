// npm run bench -- archive: a library of invented texts out as one file, and in again into an empty one.
import { execFileSync } from 'node:child_process';
import { createWriteStream, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import { fill, openLibrary, WORDS } from './invented-library.mjs';

const here = fileURLToPath(import.meta.url);
const root = path.resolve(path.dirname(here), '..');

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
  const open = (name) => openLibrary(folder, name);
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
