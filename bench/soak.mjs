// npm run bench -- soak [--minutes=60] [--devices=100]: so many devices of one library, each of which changes something every few seconds,
// fetches what is new and looks for something now and then. What each kind of request takes and how much memory the server has,
// by tenths of the time: neither should grow.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';
import { createClock } from '../core/src/sync/index.ts';
import { Client } from '../e2e/service/client.ts';
import { ensureServerBuilt, root, SERVER_WORDS } from '../scripts/steps.mjs';
import { readEntries } from './foldoc.mjs';

const asked = (name, otherwise) =>
  Number(process.argv.find((word) => word.startsWith(`--${name}=`))?.split('=')[1] ?? otherwise);
const MINUTES = asked('minutes', 60);
const DEVICES = asked('devices', 100);
const ITEMS = 1000;
const PORT = 4979;
const PARTS = 10;
/** Each device does something so often, about. */
const EVERY_MS = 8000;
const entries = readEntries();
ensureServerBuilt();

// The same each time: a generator with a seed, after Lehmer.
let seed = 11;
const below = (most) => (seed = (seed * 48_271) % 2_147_483_647) % most;

const save = (clock, n) => ({
  ...{ type: 'save', id: uuidv7(), itemId: uuidv7(), stamp: clock.next(), savedAt: Date.now() },
  ...{ address: `https://bench.invalid/${uuidv7()}`, howMuch: 'selected-part' },
  title: entries[n % entries.length].title.slice(0, 200) || 'x',
});

const data = mkdtempSync(path.join(tmpdir(), 'dorvel-soak-'));
const child = spawn(process.execPath, SERVER_WORDS, {
  cwd: root,
  env: { ...process.env, PORT: String(PORT), DORVEL_DATA: data, DORVEL_DEMO: '1', LOG_LEVEL: 'error' },
  stdio: 'inherit',
});
const memory = () => {
  const said = readFileSync(`/proc/${child.pid}/status`, 'utf8');
  return Number(/VmRSS:\s+(\d+)/.exec(said)?.[1] ?? 0) / 1024;
};
try {
  await soak();
} finally {
  child.kill('SIGKILL');
  rmSync(data, { recursive: true, force: true });
}

async function soak() {
  const origin = `http://127.0.0.1:${PORT}`;
  const isReady = () =>
    fetch(`${origin}/readyz`).then(
      ({ ok }) => ok,
      () => false,
    );
  for (let tries = 0; tries < 200 && !(await isReady()); tries++) await sleep(100);
  // One session: how often somebody signs in is bounded, how many devices speak is not.
  const client = await new Client(origin).signIn();
  const clocks = Array.from({ length: DEVICES }, (_, n) => createClock(`soak-${n}`, Date.now));
  const ids = [];
  for (let at = 0; at < ITEMS; at += 20) {
    const saves = Array.from({ length: 20 }, (_, n) => save(clocks[0], at + n));
    await client.push(...saves);
    ids.push(...saves.map(({ itemId }) => itemId));
  }
  const start = Date.now();
  const end = start + MINUTES * 60_000;
  const parts = Array.from({ length: PARTS }, () => ({ push: [], pull: [], find: [], memory: [], failed: 0 }));
  const partNow = () => parts[Math.min(PARTS - 1, Math.floor(((Date.now() - start) / (MINUTES * 60_000)) * PARTS))];
  const timed = async (kind, work) => {
    const part = partNow();
    const before = performance.now();
    try {
      const answer = await work();
      part[kind].push(performance.now() - before);
      return answer;
    } catch (error) {
      part.failed++;
      console.error(String(error).slice(0, 200));
      return null;
    }
  };

  async function device(n) {
    const clock = clocks[n];
    let after = 0;
    await sleep(below(EVERY_MS));
    while (Date.now() < end) {
      const itemId = ids[below(ids.length)];
      const base = () => ({ id: uuidv7(), itemId, stamp: clock.next() });
      const changes = [{ type: 'choose', ...base(), set: { stage: below(2) ? 'queue' : 'inbox' } }];
      if (below(3) === 0) changes.push({ type: 'tag', ...base(), set: { [`t${below(40)}`]: `t${below(40)}` } });
      if (below(20) === 0) changes.push(save(clock, below(entries.length)));
      await timed('push', () => client.push(...changes));
      for (let more = true; more;) {
        const page = await timed('pull', async () => (await client.call('GET', `/sync/pull?after=${after}`)).json());
        if (!page) break;
        ({ cursor: after, more } = page);
      }
      if (below(6) === 0) {
        const written = entries[below(ITEMS)].title.split(' ')[0];
        const question = { written, scope: 'all', typing: false, zoneMinutes: 0, from: 0, passages: 0 };
        await timed('find', async () => (await client.call('POST', '/find', question)).json());
      }
      await sleep(EVERY_MS / 2 + below(EVERY_MS));
    }
  }
  const watch = setInterval(() => partNow().memory.push(memory()), 5000);
  await Promise.all(Array.from({ length: DEVICES }, (_, n) => device(n)));
  clearInterval(watch);

  const at = (times, share) => [...times].sort((a, b) => a - b)[Math.floor(share * times.length)] ?? 0;
  console.log(`${DEVICES} devices, ${MINUTES} minutes, ${ITEMS} items at first\n`);
  console.log(
    '| tenth | requests | push p50 / p95, ms | pull p50 / p95, ms | find p50 / p95, ms | memory, MB | failed |',
  );
  console.log('|---|---|---|---|---|---|---|');
  for (const [n, part] of parts.entries()) {
    const both = (times) => `${at(times, 0.5).toFixed(0)} / ${at(times, 0.95).toFixed(0)}`;
    const requests = part.push.length + part.pull.length + part.find.length;
    console.log(
      `| ${n + 1} | ${requests} | ${both(part.push)} | ${both(part.pull)} | ${both(part.find)} | ${at(part.memory, 0.5).toFixed(0)} | ${part.failed} |`,
    );
  }
  const growth = (of) => of(parts.slice(-3)) / Math.max(1e-9, of(parts.slice(1, 4)));
  const slowest = (kind) => (some) =>
    at(
      some.flatMap((part) => part[kind]),
      0.95,
    );
  console.log(
    `\nlast three tenths over the second to fourth: push ${growth(slowest('push')).toFixed(2)}, pull ${growth(slowest('pull')).toFixed(2)}, find ${growth(slowest('find')).toFixed(2)} times at the 95th part; memory ${growth(
      (some) =>
        at(
          some.flatMap((part) => part.memory),
          0.5,
        ),
    ).toFixed(2)} times`,
  );
}
