import { existsSync, readdirSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { AccountOverview, deviceOf, Podcast } from '@dorvel/core/model';
import { createClock, PullResponse } from '@dorvel/core/sync';
import { expect, test } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { openStandIn, STAND_IN_KEY, type StandInStore } from '../../server/src/files/object-store.test-data';
import { DatabaseServer } from '../database-server';
import { type OwnServer, ownServer } from '../own-server';
import { DATABASE_PORT, page, PAIR_PORTS, SMALL_WEB_PORT } from '../ports';
import { Client } from './client';

/** Two processes of Dorvel on one database over the network, with their files in an object store, and no folder in common. */

const clock = createClock('pair', Date.now);
const database = DatabaseServer.on(DATABASE_PORT);
test.skip(database === null, 'there is no libSQL server to be had for this system');
test.describe.configure({ mode: 'serial' });

/** A site that takes its time, and knows what it was asked. */
const fetched: string[] = [];
const slow = http.createServer((request, response) => {
  fetched.push(request.url ?? '');
  const text = 'The harbour office is open from eight to four, and on the days of the ferry until it has left again. ';
  setTimeout(() => {
    response.writeHead(200, { 'content-type': 'text/html' });
    response.end(
      `<title>Notice ${request.url}</title><article><h1>Notice ${request.url}</h1><p>${text.repeat(6)}</p></article>`,
    );
  }, 400);
});
const site = () => `127.0.0.1:${(slow.address() as AddressInfo).port}`;

let pictures: StandInStore;
let one: OwnServer | null = null;
let two: OwnServer | null = null;
test.beforeAll(async () => {
  await database!.start();
  pictures = await openStandIn();
  await new Promise<void>((resolve) => void slow.listen(0, '127.0.0.1', resolve));
  const settings = {
    ...{ DORVEL_DEMO: '1', DATABASE_URL: database!.url, DORVEL_RETRY_WAITS: '200,6000' },
    ...{ DORVEL_OBJECT_STORE: pictures.address, DORVEL_OBJECT_STORE_KEY: STAND_IN_KEY.key },
    DORVEL_OBJECT_STORE_SECRET: STAND_IN_KEY.secret,
    ...{ DORVEL_FEED_REST: '1000', DORVEL_ALLOW_HOSTS: `*.localhost:${SMALL_WEB_PORT},${site()}` },
  };
  one = ownServer(PAIR_PORTS[0], settings);
  two = ownServer(PAIR_PORTS[1], settings);
  await one.start();
  await two.start();
});
test.afterAll(async () => {
  await one?.clear();
  await two?.clear();
  await database?.clear();
  await pictures.close();
  slow.close();
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
  const written = (item.capture.page?.title ?? '').split(' ').at(-1);
  const found = await there!.call('POST', '/find', {
    ...{ written, scope: 'all', typing: false, zoneMinutes: 0, from: 0, passages: 5 },
  });
  expect(((await found.json()) as { answer: { ids: string[] } }).answer.ids).toEqual([itemId]);
});

test('pictures that one of them fetched are shown by the other; a store that does not answer is waited for', async () => {
  const [here, there] = await Promise.all(pair().map(device));
  const item = await here!.settled(await here!.save(page('tidewater', '/issue/the-silt-year')));
  expect(item.capture.outcome).toMatchObject({ missingPictures: 0 });
  expect(pictures.objects.size).toBeGreaterThan(1);
  for (const [name, { bytes }] of pictures.objects) {
    const shown = await there!.call('GET', `/pictures/${name}`);
    expect([shown.status, shown.headers.get('content-type')]).toEqual([200, 'image/webp']);
    expect(Buffer.from(await shown.arrayBuffer())).toEqual(bytes);
  }
  for (const { env } of pair()) expect(existsSync(path.join(env.DORVEL_DATA ?? '', 'pictures'))).toBe(false);

  pictures.isDown = true;
  // That is a fault of the server and no picture that is missing.
  expect((await there!.call('GET', `/pictures/${item.capture.page?.thumbnail}.webp`)).status).toBe(500);
  const itemId = await here!.save(page('tidewater', '/issue/forty-one-crossings'));
  const saved = async () => (await there!.items()).find(({ id }) => id === itemId);
  await expect
    .poll(async () => (await saved())?.capture.outcome)
    .toMatchObject({ code: 'tried-again', cause: { code: 'server-fault' } });
  pictures.isDown = false;
  expect((await here!.settled(itemId)).capture).toMatchObject({ state: 'arrived', outcome: { missingPictures: 0 } });
});

test('an episode that one of them has spoken is heard at the other, and an archive that was sent to one is brought in at the other', async () => {
  test.setTimeout(180_000);
  const [here, there] = await Promise.all(pair().map(device));
  const itemId = await here!.save(page('rough', '/turning/podcast'));
  await here!.settled(itemId);
  const choose = {
    type: 'choose' as const,
    id: uuidv7(),
    itemId,
    set: { stage: 'queue' as const },
    stamp: clock.next(),
  };
  await here!.push(choose);
  await here!.call('POST', '/podcast', {});
  const podcastAt = async (by: Client) => Podcast.parse(await (await by.call('GET', '/podcast')).json()).podcast;
  const episode = async () => (await podcastAt(there!))?.episodes.find((each) => each.itemId === itemId);
  await expect.poll(async () => (await episode())?.state, { timeout: 120_000, intervals: [1000] }).toBe('done');
  const sounds: Buffer[] = [];
  for (const by of [here!, there!]) {
    const address = ((await podcastAt(by))?.address ?? '').replace('feed.xml', `${itemId}.mp3`);
    const rest = await fetch(address, { headers: { range: 'bytes=1000-' } });
    expect([rest.status, rest.headers.get('content-type')]).toEqual([206, 'audio/mpeg']);
    const { headers } = await fetch(address, { method: 'HEAD' });
    expect(rest.headers.get('content-length')).toBe(String(Number(headers.get('content-length')) - 1000));
    sounds.push(Buffer.from(await rest.arrayBuffer()));
  }
  expect(sounds[0]!.length).toBeGreaterThan(50_000);
  expect(sounds[1]!.equals(sounds[0]!)).toBe(true);

  const archive = Buffer.from(await (await there!.call('GET', '/archive')).arrayBuffer());
  const sent = await fetch(`${here!.origin}/api/archive/in`, {
    ...{ method: 'PUT', body: archive },
    headers: { 'content-type': 'application/zip', cookie: here!.cookie },
  });
  expect(await sent.text()).toContain('"look"');
  expect(await (await there!.call('POST', '/archive/in', {})).text()).toContain('"look"');
  // It has been brought in: nothing waits any more, at either.
  expect((await here!.call('POST', '/archive/in', {})).status).toBe(404);
  await there!.call('DELETE', '/podcast');
  expect([...pictures.objects.keys()].filter((name) => name.includes('/'))).toEqual([]);
  for (const { env } of pair()) expect(readdirSync(path.join(env.DORVEL_DATA ?? '', 'making'))).toEqual([]);
});

test('many pages saved at both are each fetched once, and one that starts takes none away from the other', async () => {
  const devices = await Promise.all(pair().map(device));
  const addresses = Array.from({ length: 24 }, (_, n) => `http://${site()}/slow/${n}`);
  const ids = await Promise.all(addresses.map((address, n) => devices[n % 2]!.save(address)));
  // It ends in good order and comes back while the other is at work.
  const [, other] = pair();
  await other.end('SIGTERM');
  await other.start();
  const items = await Promise.all(ids.map((id) => devices[0]!.settled(id, 90)));
  expect(items.map(({ capture }) => capture.state)).toEqual(Array(24).fill('arrived'));
  const asked = addresses.map((address) => fetched.filter((each) => address.endsWith(each)).length);
  // What was under way at the one that ended is fetched once more, by whoever takes it up; nothing else is.
  expect(asked.every((times) => times === 1 || times === 2)).toBe(true);
  expect(asked.filter((times) => times === 2).length).toBeLessThanOrEqual(4);
  // No two of them give the same stamps.
  const names = items.map(({ choices }) => deviceOf(choices.stage.at));
  expect(names).not.toContain('server');
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
  // What a capture changes while a page is put together comes with the next one.
  const missing = async () => {
    const ids = new Set((await there!.items()).map(({ id }) => id));
    return [...saves.map(({ itemId }) => itemId), meanwhile].filter((id) => !ids.has(id));
  };
  await expect.poll(missing).toEqual([]);
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

test('a session that is ended at one hears no more at the other', async () => {
  const [here, there] = await Promise.all(pair().map(device));
  const response = await fetch(`${there!.origin}/api/sync/events`, { headers: { cookie: there!.cookie } });
  // It must have been seen open once.
  await sleep(2000);
  const { sessions } = AccountOverview.parse(await (await there!.call('GET', '/account')).json());
  const own = sessions.find(({ isThis }) => isThis);
  expect((await here!.call('DELETE', `/account/sessions/${own?.id}`)).status).toBe(204);
  const endedAt = Date.now();
  const reader = response.body!.getReader();
  while (!(await reader.read()).done);
  // Without looking, the next heartbeat would tell: 25 seconds.
  expect(Date.now() - endedAt).toBeLessThan(5000);
});

let entered: Client[] = [];
test('who guesses has no more tries for asking both', async () => {
  entered = await Promise.all(pair().map(device));
  const guess = { mail: 'ines@skerrow.example', passphrase: 'a wrong guess' };
  const answers: number[] = [];
  for (let n = 0; n < 14; n++)
    answers.push((await new Client(pair()[n % 2]!.origin).call('POST', '/session', guess)).status);
  expect(answers.filter((status) => status === 401)).toHaveLength(10);
  expect(answers.slice(10)).toEqual([429, 429, 429, 429]);
});

test('an account that is erased at one is gone at the other', async () => {
  const [here, there] = entered;
  expect((await there!.call('GET', '/session')).status).toBe(200);
  const erased = await here!.call('POST', '/account/erase', { passphrase: 'the tide waits for the ferry' });
  expect(erased.status).toBe(204);
  expect((await there!.call('GET', '/session')).status).toBe(401);
});
