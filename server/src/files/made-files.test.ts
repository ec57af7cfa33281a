/** @jest-environment node */
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import express from 'express';
import { type MadeFiles, madeInBucket, madeInFolder } from './made-files';
import { openStandIn, STAND_IN_KEY, type StandInStore } from './object-store.test-data';

const NAME = 'podcasts/ines/ferry.mp3';
const SOUND = 'the sound of a ferry';
const HOUR_MS = 3_600_000;

let folder: string;
let standIn: StandInStore;
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-made-'));
  standIn = await openStandIn();
});
afterEach(async () => {
  await standIn.close();
  rmSync(folder, { recursive: true, force: true });
});

const making = () => path.join(folder, 'making');
const place = () => ({ ...STAND_IN_KEY, address: standIn.address });
const makeOf = (files: MadeFiles, name: string, content = SOUND) =>
  files.make(name, (file) => {
    writeFileSync(file, content);
    return Promise.resolve(content.length);
  });

/** What a request for a file is answered with. */
async function sent(files: MadeFiles, headers: Record<string, string> = {}, method = 'GET') {
  const app = express().get('/', async (request, response) => {
    if (!(await files.send(NAME, 'audio/mpeg', request, response))) response.status(404).end();
  });
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  try {
    const response = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`, { headers, method });
    return { status: response.status, headers: response.headers, text: await response.text() };
  } finally {
    server.close();
  }
}

describe.each<[string, () => MadeFiles]>([
  ['a folder', () => madeInFolder(path.join(folder, 'made'), making())],
  ['an object store', () => madeInBucket(place(), making())],
])('what is made, in %s', (_where, open) => {
  it('is kept once it is whole, lent, and taken away by its name', async () => {
    const files = open();
    expect(await files.borrow(NAME)).toBeNull();
    expect(await makeOf(files, NAME)).toBe(SOUND.length);
    const lent = (await files.borrow(NAME))!;
    expect(readFileSync(lent.file, 'utf8')).toBe(SOUND);
    await lent.giveBack();
    expect(readdirSync(making())).toEqual([]);
    expect((await sent(files)).text).toBe(SOUND);
    await files.remove(NAME);
    await files.remove(NAME);
    expect(await files.borrow(NAME)).toBeNull();
    expect((await sent(files)).status).toBe(404);
  });

  it('is not there by half when making it fails, and what was there before stays', async () => {
    const files = open();
    await makeOf(files, NAME);
    const failing = files.make(NAME, (file) => {
      writeFileSync(file, 'half of');
      return Promise.reject(new Error('no more voice'));
    });
    await expect(failing).rejects.toThrow('no more voice');
    expect((await sent(files)).text).toBe(SOUND);
    expect(readdirSync(making())).toEqual([]);
  });

  // RFC 9110: 14.1.2 first, last and suffix ranges; 15.5.17 for one that cannot be satisfied; 13.1.5 If-Range.
  it('is sent whole or in part', async () => {
    const files = open();
    await makeOf(files, NAME);
    const whole = await sent(files);
    expect([whole.status, whole.headers.get('content-type'), whole.headers.get('content-length')]).toEqual([
      ...[200, 'audio/mpeg'],
      String(SOUND.length),
    ]);
    expect(whole.headers.get('accept-ranges')).toBe('bytes');
    const head = await sent(files, {}, 'HEAD');
    expect([head.status, head.text, head.headers.get('content-length')]).toEqual([200, '', String(SOUND.length)]);
    const part = await sent(files, { range: 'bytes=4-8' });
    expect([part.status, part.text, part.headers.get('content-range')]).toEqual([206, 'sound', 'bytes 4-8/20']);
    expect((await sent(files, { range: 'bytes=-5' })).text).toBe('ferry');
    const beyond = await sent(files, { range: 'bytes=40-' });
    expect([beyond.status, beyond.headers.get('content-range')]).toEqual([416, 'bytes */20']);
    const same = await sent(files, { range: 'bytes=15-', 'if-range': whole.headers.get('etag')! });
    expect([same.status, same.text]).toEqual([206, 'ferry']);
    const another = await sent(files, { range: 'bytes=15-', 'if-range': '"another"' });
    expect([another.status, another.text]).toEqual([200, SOUND]);
  });

  it('goes with its folder, and no other', async () => {
    const files = open();
    for (const name of [NAME, 'podcasts/ines/oven.mp3', 'podcasts/ines-2/ferry.mp3']) await makeOf(files, name);
    await files.removeAll('podcasts/ines');
    expect([await files.borrow(NAME), await files.borrow('podcasts/ines/oven.mp3')]).toEqual([null, null]);
    expect(await files.borrow('podcasts/ines-2/ferry.mp3')).not.toBeNull();
    await files.removeAll('podcasts/nobody');
    await files.removeAll('podcasts/nobody', Date.now());
  });

  it('goes when it is old', async () => {
    const files = open();
    for (const name of [NAME, 'podcasts/ines/old.mp3']) await makeOf(files, name);
    const longAgo = new Date(Date.now() - 2 * HOUR_MS);
    const kept = standIn.objects.get('podcasts/ines/old.mp3');
    if (kept) kept.at = longAgo;
    else utimesSync(path.join(folder, 'made/podcasts/ines/old.mp3'), longAgo, longAgo);
    await files.removeAll('podcasts', Date.now() - HOUR_MS);
    expect(await files.borrow(NAME)).not.toBeNull();
    expect(await files.borrow('podcasts/ines/old.mp3')).toBeNull();
  });
});

it('what a process left half made is swept a day later, and not what another is making', async () => {
  const [left, fresh] = ['left', 'fresh'].map((name) => path.join(making(), name));
  mkdirSync(making());
  for (const file of [left, fresh]) writeFileSync(file!, 'half of');
  const before = new Date(Date.now() - 25 * HOUR_MS);
  utimesSync(left!, before, before);
  await makeOf(madeInFolder(folder, making()), NAME);
  expect([existsSync(left!), existsSync(fresh!)]).toEqual([false, true]);
});

it('a store that is busy is asked again; one that does not answer is a fault, and nothing that is missing', async () => {
  const files = madeInBucket(place(), making());
  standIn.isDown = true;
  const back = setTimeout(() => (standIn.isDown = false), 150);
  await makeOf(files, NAME);
  clearTimeout(back);
  expect(standIn.objects.get(NAME)?.bytes.toString()).toBe(SOUND);
  standIn.isDown = true;
  await expect(files.borrow(NAME)).rejects.toThrow('answered 503');
  await expect(makeOf(files, NAME)).rejects.toThrow('answered 503');
  expect(readdirSync(making())).toEqual([]);
});
