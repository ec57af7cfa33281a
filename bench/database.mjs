// npm run bench -- database [--write]: the same requests to a Dorvel whose database is a file, and to one whose database is a libSQL server
// on this machine. Times at the median, and how many times longer the second takes.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';
import { createClock } from '../core/src/sync/index.ts';
import { DatabaseServer } from '../e2e/database-server.ts';
import { Client } from '../e2e/service/client.ts';
import { ensureServerBuilt, root, SERVER_WORDS } from '../scripts/steps.mjs';
import { readEntries } from './foldoc.mjs';

const ITEMS = 600;
const [FILE_PORT, SERVER_PORT, DATABASE_PORT] = [4976, 4977, 4978];
const clock = createClock('bench', Date.now);
const entries = readEntries();
ensureServerBuilt();

const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];
async function timed(times, work) {
  const took = [];
  for (let n = 0; n < times; n++) {
    const before = performance.now();
    await work(n);
    took.push(performance.now() - before);
  }
  return median(took);
}

/** A save of an address that is not fetched: its title is what is found. */
const save = (n) => ({
  type: 'save',
  id: uuidv7(),
  itemId: uuidv7(),
  address: `https://bench.invalid/${uuidv7()}`,
  savedAt: Date.now(),
  stamp: clock.next(),
  title: entries[n % entries.length].title.slice(0, 200) || 'x',
  howMuch: 'selected-part',
});

async function measure(port, settings) {
  const data = mkdtempSync(path.join(tmpdir(), 'dorvel-bench-'));
  const child = spawn(process.execPath, SERVER_WORDS, {
    cwd: root,
    env: { ...process.env, PORT: String(port), DORVEL_DATA: data, DORVEL_DEMO: '1', LOG_LEVEL: 'error', ...settings },
    stdio: 'inherit',
  });
  const origin = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 200; tries++) {
    if (
      await fetch(`${origin}/readyz`).then(
        ({ ok }) => ok,
        () => false,
      )
    )
      break;
    await sleep(100);
  }
  try {
    const client = await new Client(origin).signIn();
    const ids = [];
    for (let at = 0; at < ITEMS; at += 20) {
      const saves = Array.from({ length: 20 }, (_, n) => save(at + n));
      await client.push(...saves);
      ids.push(...saves.map(({ itemId }) => itemId));
    }
    const { cursor } = await (await client.call('GET', '/sync/pull?after=0')).json();
    let after = cursor;
    for (let more = true; more;)
      ({ cursor: after, more } = await (await client.call('GET', `/sync/pull?after=${after}`)).json());
    const choose = (n) => ({
      type: 'choose',
      id: uuidv7(),
      itemId: ids[n % ids.length],
      stamp: clock.next(),
      set: { stage: n % 2 ? 'queue' : 'inbox' },
    });
    const find = async (n) => {
      const written = `${entries[n % ITEMS].title.split(' ')[0]} ${entries[(n + 1) % ITEMS].title.split(' ')[0]}`;
      await (
        await client.call('POST', '/find', {
          written,
          scope: 'all',
          typing: false,
          zoneMinutes: 0,
          from: 0,
          passages: 0,
        })
      ).text();
    };
    await find(0);
    return {
      'pull of nothing new': await timed(100, async () =>
        (await client.call('GET', `/sync/pull?after=${after}`)).text(),
      ),
      'push of one change': await timed(60, (n) => client.push(choose(n))),
      'push of 20 changes': await timed(20, (n) =>
        client.push(...Array.from({ length: 20 }, (_, m) => choose(n * 20 + m))),
      ),
      'push of 20 saves': await timed(15, () => client.push(...Array.from({ length: 20 }, (_, m) => save(m)))),
      'find, two words': await timed(60, find),
    };
  } finally {
    child.kill('SIGKILL');
    rmSync(data, { recursive: true, force: true });
  }
}

const database = DatabaseServer.on(DATABASE_PORT);
if (!database) {
  console.log('There is no libSQL server to be had for this system.');
  process.exit(0);
}
await database.start();
const file = await measure(FILE_PORT, {});
const server = await measure(SERVER_PORT, {
  DATABASE_URL: database.url,
});
await database.clear();
const rows = Object.keys(file).map(
  (name) =>
    `| ${name} | ${file[name].toFixed(1)} | ${server[name].toFixed(1)} | ${(server[name] / file[name]).toFixed(1)} |`,
);
const table = `| ${ITEMS} items, ms at the median | a file | a libSQL server | times longer |\n|---|---|---|---|\n${rows.join('\n')}\n`;
console.log(table);
if (process.argv.includes('--write'))
  writeFileSync(
    path.join(root, 'docs/bench/database.md'),
    `# A file, or a server of databases\n\nMade by \`npm run bench -- database --write\`: the same requests over HTTP, one after the other, to a Dorvel on each. The libSQL server stands on\nthe same machine, so that what a network takes is to be added for each statement of a change. It is spoken to over a WebSocket (ws:, wss:): by single\nrequests (http:, https:) the same takes about three times as long.\n\n${table}`,
  );
process.exit(0);
