import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { captureWords } from '@dorvel/core/wording';
import { expect, test } from '@playwright/test';
import { ownServer } from '../own-server';
import { SIEGE_PORT, SIEGE_SITE_PORT } from '../ports';
import { Client } from './client';
import { siegeSite } from './siege-site';

const HONEST = 50;
const OF_EACH_BOMB = 3;
const READER = { mail: 'ines@skerrow.example', passphrase: 'the tide waits for the ferry' };

/** What the processes of a server take of memory, in megabytes, what they share counted once (Linux: Pss). */
function memoryOf(pid: number): Record<string, number> {
  const read = (file: string): string => {
    try {
      return readFileSync(file, 'utf8');
    } catch {
      // It ended while we looked.
      return '';
    }
  };
  const parents = new Map(
    readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .map((name) => {
        const stat = read(`/proc/${name}/stat`);
        return [Number(name), Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1])] as const;
      }),
  );
  const isOf = (each: number): boolean => each === pid || (parents.has(each) && isOf(parents.get(each) ?? 0));
  const taken: Record<string, number> = {};
  for (const each of [...parents.keys()].filter(isOf)) {
    const kilobytes = Number(/^Pss:\s+(\d+)/m.exec(read(`/proc/${each}/smaps_rollup`))?.[1] ?? 0);
    const words = read(`/proc/${each}/cmdline`).split('\0');
    const name = path.basename(words.find((word) => /\.(?:m?js|ts)$/.test(word)) ?? words[0] ?? '');
    taken[`${name} ${words.at(-2) ?? ''}`] = Math.round(kilobytes / 1000);
  }
  return taken;
}
const sum = (taken: Record<string, number>) => Object.values(taken).reduce((a, b) => a + b, 0);

interface Watched {
  seconds: number;
  peakMegabytes: number;
  /** What took it. */
  peak: Record<string, number>;
  alive: Waits;
  signIn: Waits;
}

/** How long answers took, in milliseconds: nearly all of them, and the slowest. */
interface Waits {
  p95: number;
  slowest: number;
}

function waitsOf(times: readonly number[]): Waits {
  const sorted = [...times].sort((a, b) => a - b);
  return { p95: sorted[Math.ceil(sorted.length * 0.95) - 1] ?? Infinity, slowest: sorted.at(-1) ?? Infinity };
}

/** Does something, and looks meanwhile at how much memory is taken and how long it takes to be answered. */
async function watched(origin: string, pid: number, work: () => Promise<unknown>): Promise<Watched> {
  const seen = { peak: {} as Record<string, number>, alive: [] as number[], signIn: [] as number[] };
  let done = false;
  const timed = async (ask: () => Promise<Response>) => {
    const before = performance.now();
    expect((await ask()).status).toBe(200);
    return performance.now() - before;
  };
  const began = performance.now();
  const all = work().finally(() => (done = true));
  const memory = (async () => {
    while (!done) {
      const taken = memoryOf(pid);
      if (sum(taken) > sum(seen.peak)) seen.peak = taken;
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
  })();
  while (!done) {
    seen.alive.push(await timed(() => fetch(`${origin}/healthz`)));
    seen.signIn.push(await timed(() => new Client(origin).call('POST', '/session', READER)));
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
  await Promise.all([all, memory]);
  return {
    seconds: (performance.now() - began) / 1000,
    peakMegabytes: sum(seen.peak),
    peak: seen.peak,
    alive: waitsOf(seen.alive),
    signIn: waitsOf(seen.signIn),
  };
}

test('honest pages arrive in time beside bombs of every kind, and nothing is out of breath', async () => {
  test.setTimeout(600_000);
  const site = await siegeSite(SIEGE_SITE_PORT);
  const server = ownServer(SIEGE_PORT, {
    DORVEL_DEMO: '1',
    DORVEL_ALLOW_HOSTS: `*.localhost:${SIEGE_SITE_PORT}`,
    DORVEL_RETRY_WAITS: '500,1000',
    // So that the bombs have come to an end before the night.
    DORVEL_LONG_LIMIT: '4000',
  });
  await server.start();
  try {
    const client = await new Client(server.origin).signIn();
    const settled = async (ids: readonly string[], seconds: number) => {
      const until = performance.now() + seconds * 1000;
      for (;;) {
        const known = new Map((await client.items()).map((item) => [item.id, item]));
        const items = ids.map((id) => known.get(id));
        if (items.every((item) => item?.capture.state === 'arrived' || item?.capture.state === 'failed'))
          return items.map((item) => item!);
        if (performance.now() > until) throw new Error('captures did not come to an end');
        await new Promise((resolve) => setTimeout(resolve, 300));
      }
    };
    const save = async (addresses: readonly string[]) => {
      const ids: string[] = [];
      for (const address of addresses) ids.push(await client.save(address));
      return ids;
    };
    const numbers = (count: number, from = 0) => Array.from({ length: count }, (_, n) => from + n);

    const alone = await watched(server.origin, server.pid(), async () => {
      const items = await settled(await save(numbers(HONEST).map(site.honest)), 180);
      expect(items.map(({ capture }) => captureWords(capture))).toEqual(
        Array(HONEST).fill('Came through whole, one picture.'),
      );
    });

    const bombs = Object.values(site.bombs).flatMap((bomb) => numbers(OF_EACH_BOMB).map(bomb));
    const honest = numbers(HONEST, HONEST).map(site.honest);
    // One after the other, as they would come: a bomb, an honest page or two, a bomb.
    const mixed = [
      ...honest.map((address, n) => ({ address, at: n / honest.length })),
      ...bombs.map((address, n) => ({ address, at: n / bombs.length })),
    ].sort((a, b) => a.at - b.at);
    let ids: string[] = [];
    const beside = await watched(server.origin, server.pid(), async () => {
      ids = await save(mixed.map(({ address }) => address));
      const items = await settled(
        ids.filter((_, n) => honest.includes(mixed[n]!.address)),
        300,
      );
      expect(items.map(({ capture }) => captureWords(capture))).toEqual(
        Array(HONEST).fill('Came through whole, one picture.'),
      );
    });
    const after = await watched(server.origin, server.pid(), async () => {
      const items = await settled(ids, 400);
      // Every bomb ends, in words, and its address is kept.
      for (const { address, capture } of items)
        expect(captureWords(capture), address).toMatch(/safely|address is kept|did not come through|Came through/);
    });
    await test.info().attach('figures', { body: JSON.stringify({ alone, beside, after }, null, 1) });
    for (const part of [beside, after]) {
      expect(part.peakMegabytes).toBeLessThan(700);
      // A machine that is shared may stop for a moment by itself; it does not do so one time in twenty.
      for (const { p95, slowest } of [part.alive, part.signIn]) {
        expect(p95).toBeLessThan(1000);
        expect(slowest).toBeLessThan(5000);
      }
    }
    expect(beside.seconds).toBeLessThan(2 * alone.seconds);
  } finally {
    await server.clear();
    site.close();
  }
});
