import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Item } from '@dorvel/core/model';
import { createClock, PullResponse } from '@dorvel/core/sync';
import { expect, test } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { DatabaseServer } from '../database-server';
import { type OwnServer, ownServer } from '../own-server';
import { DATABASE_PORT, page, PAIR_PORTS } from '../ports';
import { Client } from './client';

/** Two processes of Dorvel on one database over the network, with one folder for their pictures. */

const clock = createClock('pair', Date.now);
const database = DatabaseServer.on(DATABASE_PORT);
test.skip(database === null, 'there is no libSQL server to be had for this system');
test.describe.configure({ mode: 'serial' });

let folder: string;
let [one, two]: OwnServer[] = [];
test.beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-pair-'));
  await database!.start();
  const settings = {
    ...{ DORVEL_DEMO: '1', DORVEL_DATA: folder, DATABASE_URL: database!.url, DORVEL_RETRY_WAITS: '200' },
    DORVEL_FEED_REST: '1000',
  };
  [one, two] = PAIR_PORTS.map((port) => ownServer(port, settings));
  await one!.start();
  await two!.start();
});
test.afterAll(async () => {
  await one?.clear();
  await two?.clear();
  await database?.clear();
  rmSync(folder, { recursive: true, force: true });
});
const pair = () => [one!, two!] as const;
const device = (server: OwnServer) => new Client(server.origin).signIn();

/** Listens to the events of a server, until it is told of a change. @returns in how many milliseconds */
async function heard(client: Client, act: () => Promise<unknown>): Promise<number> {
  const stop = new AbortController();
  const response = await fetch(`${client.origin}/api/sync/events`, {
    headers: { cookie: client.cookie },
    signal: stop.signal,
  });
  const reader = response.body!.getReader();
  // The first is told to everybody who comes.
  await reader.read();
  const begunAt = Date.now();
  await act();
  let said = '';
  while (!said.includes('event: changed')) said += new TextDecoder().decode((await reader.read()).value);
  stop.abort();
  return Date.now() - begunAt;
}

test('what is saved at one is captured once, heard of at the other within a second or two, found and read there', async () => {
  const [here, there] = await Promise.all(pair().map(device));
  // A moment for the other to look for the first time.
  let itemId = '';
  const tookMs = await heard(there!, async () => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    itemId = await here!.save(page('rough', '/n/harbourmaster'));
  });
  expect(tookMs).toBeLessThan(1500 + 2500);
  const item = await there!.settled(itemId);
  expect(item.capture.state).toBe('arrived');
  expect(item.capture.copies).toHaveLength(1);
  const copy = await there!.call('GET', `/copies/${item.capture.page?.copyId ?? ''}`);
  expect(copy.status).toBe(200);
  const written = item.capture.page!.title.split(' ').at(-1)!;
  const found = await there!.call('POST', '/find', {
    ...{ written, scope: 'all', typing: false, zoneMinutes: 0, from: 0, passages: 5 },
  });
  expect(((await found.json()) as { answer: { ids: string[] } }).answer.ids).toEqual([itemId]);
});

test('many pages saved at both are each fetched once, and a second one that starts takes none away', async () => {
  const devices = await Promise.all(pair().map(device));
  const addresses = Array.from({ length: 24 }, (_, n) => page('rough', `/n/pair-${n}`));
  const saves = Promise.all(addresses.map((address, n) => devices[n % 2]!.save(address)));
  // It comes back while both are at work.
  await two!.end('SIGTERM');
  const ids = await saves.catch(() => null);
  await two!.start();
  const again = await Promise.all(addresses.map((address) => devices[0]!.save(address)));
  expect(again).toHaveLength(24);
  const items = await Promise.all((ids ?? again).map((id) => devices[0]!.settled(id, 90)));
  const canonical = (item: Item) => item.capture.duplicateOf ?? item.id;
  expect(new Set(items.map(canonical)).size).toBe(24);
  const all = await devices[0]!.items();
  for (const item of all.filter(({ capture }) => capture.duplicateOf === null && capture.state === 'arrived'))
    expect([item.address, item.capture.copies.length]).toEqual([item.address, 1]);
  // No two of them gave the same stamp.
  const names = new Set(all.map(({ choices }) => choices.stage.at.split('-').slice(2).join('-')));
  expect([...names].every((name) => name !== 'server')).toBe(true);
});

test('a long push goes in whole, is never an error, and holds up nobody', async () => {
  const [here, there] = await Promise.all(pair().map(device));
  const saves = Array.from({ length: 120 }, (_, n) => ({
    type: 'save' as const,
    ...{
      id: uuidv7(),
      itemId: uuidv7(),
      address: `https://long.example/${n}`,
      savedAt: Date.now(),
      stamp: clock.next(),
    },
  }));
  const pushing = here!.push(...saves);
  const meanwhile = await there!.save('https://long.example/meanwhile');
  const results = await pushing;
  expect(results.map(({ outcome }) => outcome)).toEqual(Array(120).fill('applied'));
  const ids = new Set((await there!.items()).map(({ id }) => id));
  expect([...saves.map(({ itemId }) => itemId), meanwhile].filter((id) => !ids.has(id))).toEqual([]);
});

test('a feed is looked at by one of them; when that one is killed, by the other', async () => {
  test.setTimeout(120_000);
  const feedId = uuidv7();
  const lookedAt = async (by: Client): Promise<number> => {
    const pulled = PullResponse.parse(await (await by.call('GET', '/sync/pull?after=0')).json());
    return pulled.records.feeds.find(({ id }) => id === feedId)?.state.checkedAt ?? 0;
  };
  const [here, there] = await Promise.all(pair().map(device));
  const address = page('tidewater', '/atom.xml');
  const follow = {
    type: 'follow' as const,
    id: uuidv7(),
    feedId,
    address,
    followedAt: Date.now(),
    stamp: clock.next(),
  };
  expect(await here!.push(follow)).toMatchObject([{ outcome: 'applied' }]);
  await expect.poll(() => lookedAt(there!), { timeout: 30_000 }).toBeGreaterThan(0);
  // Whichever of them it was: each is killed in turn, and the other goes on.
  for (const [killed, left] of [
    [one!, there!],
    [two!, here!],
  ] as const) {
    await killed.end('SIGKILL');
    const before = await lookedAt(left);
    const ask = { type: 'feed' as const, id: uuidv7(), feedId, set: { askedAt: Date.now() }, stamp: clock.next() };
    expect(await left.push(ask)).toMatchObject([{ outcome: 'applied' }]);
    await expect.poll(() => lookedAt(left), { timeout: 45_000 }).toBeGreaterThan(before);
    await killed.start();
  }
});

test('an account that is erased at one is gone at the other', async () => {
  const [here, there] = await Promise.all(pair().map(device));
  expect((await there!.call('GET', '/session')).status).toBe(200);
  const erased = await here!.call('POST', '/account/erase', { passphrase: 'the tide waits for the ferry' });
  expect(erased.status).toBe(204);
  expect((await there!.call('GET', '/session')).status).toBe(401);
});
