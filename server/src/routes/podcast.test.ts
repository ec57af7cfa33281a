import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import express, { type Request, type Response } from 'express';
import { madeInFolder } from '../files/made-files';
import type { Podcasts } from '../publish/podcasts';
import { publicPodcastRoutes } from './podcast';

const SECRET = 'a'.repeat(32);
const EPISODE = '0194c2a0-0000-7000-8000-000000000001';
const SOUND = 'the sound of it';

// A library may lie below a hidden folder, as `~/.local/share` is one.
const folder = path.join(mkdtempSync(path.join(tmpdir(), 'dorvel-podcast-')), '.hidden');
const podcasts = {
  at: (secret: string) => Promise.resolve(secret === SECRET ? 'reader' : null),
  episodeOf: (_account: string, itemId: string) =>
    Promise.resolve({
      state: itemId === EPISODE ? 'done' : 'waiting',
      item: { id: itemId },
      copyId: 'copy',
      voice: 1,
    }),
  send: (account: string, _episode: unknown, request: Request, response: Response) =>
    madeInFolder(folder, path.join(folder, 'making')).send(`${account}.mp3`, 'audio/mpeg', request, response),
} as unknown as Podcasts;

let server: Server;
let woken = 0;
beforeAll(async () => {
  mkdirSync(folder);
  writeFileSync(path.join(folder, 'reader.mp3'), SOUND);
  server = createServer(
    express().use(
      '/podcast',
      publicPodcastRoutes(podcasts, () => (woken += 1)),
    ),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  await new Promise((resolve) => server.close(resolve));
  rmSync(path.dirname(folder), { recursive: true });
});

const get = (where: string, headers: Record<string, string> = {}) =>
  fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/podcast/${where}`, { headers });

it('an episode is sent as what it is, and in part where a download was cut off (RFC 9110, range requests)', async () => {
  const whole = await get(`${SECRET}/${EPISODE}.mp3`);
  expect(whole.status).toBe(200);
  expect(whole.headers.get('content-type')).toBe('audio/mpeg');
  expect(whole.headers.get('cache-control')).toContain('private');
  expect(await whole.text()).toBe(SOUND);
  const rest = await get(`${SECRET}/${EPISODE}.mp3`, { range: 'bytes=4-8' });
  expect(rest.status).toBe(206);
  expect(rest.headers.get('content-range')).toBe(`bytes 4-8/${SOUND.length}`);
  expect(await rest.text()).toBe('sound');
});

it.each([
  ['another secret', `${'b'.repeat(32)}/${EPISODE}.mp3`],
  ['what is no secret', `..%2F..%2F/${EPISODE}.mp3`],
  ['an episode that is not made yet', `${SECRET}/0194c2a0-0000-7000-8000-000000000002.mp3`],
  ['what is no episode', `${SECRET}/..%2Fepisode.mp3`],
])('%s is answered as if there were nothing', async (_what, where) => {
  const { status } = await get(where);
  expect(status).toBe(404);
});

it('an episode whose sound has gone is not there, and whoever makes them is woken', async () => {
  rmSync(path.join(folder, 'reader.mp3'));
  const before = woken;
  expect((await get(`${SECRET}/${EPISODE}.mp3`)).status).toBe(404);
  expect(woken).toBe(before + 1);
});
