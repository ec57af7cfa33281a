import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  statSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { MadeToken } from '@dorvel/core/model';
import { createClock, PullResponse } from '@dorvel/core/sync';
import { captureWords } from '@dorvel/core/wording';
import { createClient } from '@libsql/client';
import { expect, test } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { SERVER_WORDS } from '../../scripts/steps.mjs';
import { objectStore } from '../../server/src/files/object-store';
import { openStandIn, STAND_IN_KEY } from '../../server/src/files/object-store.test-data';
import { type OwnServer, ownServer, root } from '../own-server';
import { MISHAP_PORT, page } from '../ports';
import { Client } from './client';

const clock = createClock('keeping', Date.now);
let server: OwnServer;
let folder: string;
test.describe.configure({ mode: 'serial' });
test.beforeEach(() => {
  server = ownServer(MISHAP_PORT, { DORVEL_DEMO: '1', DORVEL_RETRY_WAITS: '200' });
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-backup-'));
});
test.afterEach(async () => {
  await server.clear();
  rmSync(folder, { recursive: true, force: true });
});

const data = () => server.env.DORVEL_DATA ?? '';
const database = () => path.join(data(), 'dorvel.db');
const command = (...words: string[]) => {
  const { status, stdout, stderr } = spawnSync('npm', ['run', '--silent', ...words], {
    cwd: root,
    env: server.env,
    encoding: 'utf8',
  });
  return { status, says: stdout + stderr };
};
/** Starts the server where it is not expected to stay. */
const started = () => {
  const { status, stderr } = spawnSync(process.execPath, SERVER_WORDS, {
    cwd: root,
    env: server.env,
    encoding: 'utf8',
    timeout: 60_000,
  });
  return { status, says: stderr };
};
/** A library with one article and its pictures. */
async function withArticle(): Promise<Client> {
  await server.start();
  const client = await new Client(server.origin).signIn();
  const item = await client.settled(await client.save(page('tidewater', '/issue/the-silt-year')));
  expect(item.capture.state).toBe('arrived');
  return client;
}

test('a database that is missing, empty or cut off beside its pictures is not begun anew: it is said what brings it back', async () => {
  await server.start();
  const client = await new Client(server.origin).signIn();
  const item = await client.settled(await client.save(page('slipway', '/')));
  expect(item.capture.state).toBe('arrived');
  await server.end('SIGTERM');
  // Pictures or none: what counts is that the folder of pictures is not empty.
  const pictures = path.join(data(), 'pictures', 'ab');
  spawnSync('mkdir', ['-p', pictures]);
  writeFileSync(path.join(pictures, 'x.webp'), 'x');

  truncateSync(database(), Math.floor(statSync(database()).size / 2));
  const cut = started();
  expect(cut).toMatchObject({ status: 1, says: expect.stringMatching(/cut off.*\n.*npm run restore/) });
  expect(cut.says).not.toMatch(/ at .*\.ts:/);
  expect(command('doctor')).toMatchObject({ status: 1, says: expect.stringContaining('cut off') });

  truncateSync(database(), 0);
  expect(started()).toMatchObject({
    status: 1,
    says: expect.stringMatching(/missing or empty.*\n.*npm run restore/),
  });
  rmSync(database());
  expect(started()).toMatchObject({ status: 1, says: expect.stringMatching(/missing or empty/) });
  expect(command('doctor')).toMatchObject({ status: 1, says: expect.stringContaining('missing or empty') });
  writeFileSync(database(), 'no database at all, but some letters');
  expect(started()).toMatchObject({ status: 1, says: expect.stringMatching(/not a database/) });
});

test('nor is one that is missing while its pictures are in an object store', async () => {
  const store = await openStandIn();
  try {
    await objectStore({ ...STAND_IN_KEY, address: store.address }).put(Buffer.from('a picture'));
    const { key, secret } = STAND_IN_KEY;
    const place = {
      DORVEL_OBJECT_STORE: store.address,
      DORVEL_OBJECT_STORE_KEY: key,
      DORVEL_OBJECT_STORE_SECRET: secret,
    };
    // Not spawnSync: the store answers from here.
    const child = spawn(process.execPath, SERVER_WORDS, { cwd: root, env: { ...server.env, ...place } });
    let says = '';
    child.stderr.on('data', (part) => (says += String(part)));
    await once(child, 'exit');
    expect(child.exitCode).toBe(1);
    expect(says).toContain('The database is missing or empty, but its pictures are there');
  } finally {
    await store.close();
  }
});

test('a backup brings back what was, and devices learn of it and tell what they know', async () => {
  const client = await withArticle();
  expect(command('backup', '--', folder)).toMatchObject({
    status: 0,
    says: expect.stringContaining('The library is in'),
  });
  const pull = async (after: number) =>
    PullResponse.parse(await (await client.call('GET', `/sync/pull?after=${after}`)).json());
  const before = await pull(0);
  // After the backup: what the restored server will know nothing of.
  const later = await client.settled(await client.save(page('tidewater', '/issue/forty-one-crossings')));
  const { cursor } = await pull(0);
  expect(command('restore', '--', folder)).toMatchObject({
    status: 1,
    says: expect.stringContaining('is running'),
  });
  await server.end('SIGTERM');
  const restored = command('restore', '--', folder);
  expect(restored).toMatchObject({ status: 0, says: expect.stringContaining('as it was on') });
  expect(readdirSync(data()).some((name) => name.startsWith('before-restore-'))).toBe(true);
  expect(command('doctor')).toMatchObject({ status: 0, says: expect.stringContaining('All is well.') });

  await server.start();
  await client.signIn();
  const after = await pull(cursor);
  expect(after.records.items).toEqual([]);
  // Another epoch: the cursor means nothing, and the device begins again.
  expect(after.epoch).not.toBe(before.epoch);
  const anew = await pull(0);
  expect(anew.records.items.map(({ id }) => id)).toEqual(before.records.items.map(({ id }) => id));
  // What changes from now on is newer than anything that a device has seen.
  await client.push({
    id: uuidv7(),
    stamp: clock.next(),
    type: 'choose',
    itemId: anew.records.items[0]!.id,
    set: { stage: 'kept' },
  });
  expect((await pull(cursor)).records.items).toHaveLength(1);
  expect((await client.items()).map(({ id }) => id)).not.toContain(later.id);
  // Half a backup is not a backup.
  rmSync(path.join(folder, 'backup.json'));
  expect(command('restore', '--', folder).says).toContain('no whole backup');
});

test('bad records of before shut nobody out; the doctor finds and mends them', async () => {
  const client = await withArticle();
  const [good] = await client.items();
  await server.end('SIGTERM');
  const sqlite = createClient({ url: `file:${database()}` });
  const { rows } = await sqlite.execute('select account_id, sequence, record from items');
  const record = JSON.parse(rows[0]!.record as string) as { id: string; capture: { page: object } };
  const put = (id: string, value: unknown) =>
    sqlite.execute({
      sql: 'insert into items (account_id, id, sequence, address_key, record) values (?, ?, 2, ?, ?)',
      args: [rows[0]!.account_id!, id, `https://x.example/${id}`, JSON.stringify(value)],
    });
  const [long, unread] = [uuidv7(), uuidv7()];
  await put(long, {
    ...record,
    id: long,
    capture: { ...record.capture, page: { ...record.capture.page, title: 'x'.repeat(1100) } },
  });
  await put(unread, { id: unread, address: 'https://x.example/kept', choices: 'nonsense' });
  await sqlite.execute({
    sql: 'insert into records (account_id, kind, id, sequence, record) values (?, ?, ?, 2, ?)',
    args: [rows[0]!.account_id!, 'highlight', uuidv7(), '{"id":5}'],
  });
  sqlite.close();

  await server.start();
  const fresh = await new Client(server.origin).signIn();
  const items = new Map((await fresh.items()).map((item) => [item.id, item]));
  expect([...items.keys()].sort()).toEqual([good!.id, long, unread].sort());
  expect(items.get(long)?.capture.page?.title).toHaveLength(1000);
  // Of what cannot be read the address is kept, and the item says so.
  expect(items.get(unread)).toMatchObject({
    address: 'https://x.example/kept',
    capture: { state: 'failed', outcome: { code: 'unreadable' } },
  });
  await server.end('SIGTERM');
  // What a capture that broke off left two hours ago, and what one may be writing now.
  const shelf = path.join(data(), 'pictures', 'ab');
  mkdirSync(shelf, { recursive: true });
  const [old, half, young] = ['ab'.repeat(32), `${'ab'.repeat(32)}.webp.12.x`, 'ac'.repeat(32)].map((name) =>
    path.join(shelf, name.includes('.') ? name : `${name}.webp`),
  );
  for (const file of [old!, half!, young!]) writeFileSync(file, 'picture');
  const twoHoursAgo = Date.now() / 1000 - 2 * 3600;
  for (const file of [old!, half!]) utimesSync(file, twoHoursAgo, twoHoursAgo);
  const found = command('doctor');
  expect(found.status).toBe(1);
  expect(found.says).toContain('2 files that no account has any more, 1 kB: npm run doctor -- --mend');
  expect(existsSync(old!)).toBe(true);
  expect(found.says).toMatch(/item \S+ is out of bounds: capture\.page\.title/);
  expect(found.says).toMatch(/item \S+ cannot be read/);
  expect(found.says).toMatch(/highlight \S+ cannot be read/);
  expect(command('doctor', '--', '--mend').says).toContain('All is well.');
  expect(command('doctor')).toMatchObject({ status: 0, says: expect.stringContaining('All is well.') });
  expect(readdirSync(data())).toContain('set-aside.jsonl');
  expect([old!, half!, young!].map((file) => existsSync(file))).toEqual([false, false, true]);
});

test('while another program holds the database, nothing waits that need not, and saves arrive afterwards', async () => {
  const client = await withArticle();
  const other = createClient({ url: `file:${database()}` });
  const lock = await other.transaction('write');
  await lock.execute('update accounts set name = name');
  let slowest = 0;
  const watch = async () => {
    const before = performance.now();
    expect((await fetch(`${server.origin}/healthz`)).status).toBe(200);
    slowest = Math.max(slowest, performance.now() - before);
  };
  const save = client.save(page('rough', '/n/7'));
  for (let n = 0; n < 20; n++) {
    await watch();
    await sleep(100);
  }
  // What only reads goes on.
  expect((await client.call('GET', '/session')).status).toBe(200);
  await lock.commit();
  other.close();
  expect((await client.settled(await save)).capture.state).toBe('arrived');
  expect(slowest).toBeLessThan(500);
});

test('a page that was being taken apart at two ends of the server is set aside, and says so', async () => {
  await server.start();
  let client = await new Client(server.origin).signIn();
  const id = await client.save(page('rough', '/hangs'));
  for (let end = 0; end < 2; end++) {
    await expect
      .poll(async () => (await client.items()).find((item) => item.id === id)?.capture.state)
      .toBe('fetching');
    await server.end('SIGKILL');
    await server.start();
    client = await new Client(server.origin).signIn();
  }
  const item = await client.settled(id);
  expect(captureWords(item.capture)).toMatch(
    /ended 2 times while this was being taken apart, so it is set aside.*address is kept/,
  );
  // Asked for again, it is tried again.
  await client.push({ id: uuidv7(), stamp: clock.next(), type: 'refetch', itemId: id });
  await expect.poll(async () => (await client.items()).find((each) => each.id === id)?.capture.state).toBe('fetching');
});

test('the first account is made by who has the set-up code, once, and the server answers to its own names only', async () => {
  await server.clear();
  server = ownServer(MISHAP_PORT, { DORVEL_HOSTS: 'library.example' });
  await server.start();
  const code = /Set-up code for the first account: (\S+)/.exec(server.output())?.[1] ?? '';
  const reader = { mail: 'r@example.org', name: 'R', passphrase: 'a long enough passphrase' };
  const make = (mail: string, with_: string) =>
    new Client(server.origin).call('POST', '/accounts', { ...reader, mail, code: with_ });
  expect((await make('r@example.org', 'not-the-code')).status).toBe(403);
  const all = await Promise.all(Array.from({ length: 8 }, (_, n) => make(`r${n}@example.org`, code)));
  expect(all.filter(({ status }) => status === 201)).toHaveLength(1);

  const asked = (host: string) =>
    new Promise<number>((resolve, reject) => {
      http
        .get(`${server.origin}/api/setup`, { headers: { host } }, (response) =>
          resolve(response.resume().statusCode ?? 0),
        )
        .on('error', reject);
    });
  expect(await asked('library.example')).toBe(200);
  expect(await asked(`127.0.0.1:${MISHAP_PORT}`)).toBe(200);
  expect(await asked('rebound.example')).toBe(421);
});

test('the token of a bookmark reads nothing, and takes back only what it saved itself', async () => {
  await server.start();
  const client = await new Client(server.origin).signIn();
  const { secret: token } = MadeToken.parse(
    await (await client.call('POST', '/tokens', { name: 'On the kiosk', scope: 'save' })).json(),
  );
  const post = async (to: string, form: Record<string, string>) => {
    const response = await fetch(`${server.origin}${to}`, {
      method: 'POST',
      body: new URLSearchParams({ token, ...form }),
    });
    return { status: response.status, html: await response.text() };
  };
  const mine = await client.save('https://secret.example/mine');
  await client.push({
    id: uuidv7(),
    stamp: clock.next(),
    type: 'choose',
    itemId: mine,
    set: { title: 'Nobody’s business' },
  });
  const again = await post('/save', { address: 'https://secret.example/mine' });
  expect(again.status).toBe(200);
  expect(again.html).toContain('On the kiosk');
  for (const { html } of [again, await post('/save', { address: 'https://x.example/new' })])
    for (const word of ['ines@', 'Tavora', 'Nobody’s business', 'read yet']) expect(html).not.toContain(word);
  expect((await post('/save/undo', { item: mine })).status).toBe(404);
  const saved =
    /name="item" value="([^"]+)"/.exec((await post('/save', { address: 'https://x.example/mine' })).html)?.[1] ?? '';
  expect((await post('/save/undo', { item: saved })).status).toBe(200);
  const stages = new Map((await client.items()).map(({ id, choices }) => [id, choices.stage.value]));
  expect([stages.get(mine), stages.get(saved)]).toEqual(['inbox', 'let-go']);
});

test('who has signed out hears no more', async () => {
  await server.start();
  const client = await new Client(server.origin).signIn();
  const stream = await fetch(`${server.origin}/api/sync/events`, { headers: { cookie: client.cookie } });
  const reader = stream.body!.getReader();
  await reader.read();
  await fetch(`${server.origin}/api/session`, { method: 'DELETE', headers: { cookie: client.cookie } });
  const ended = (async () => {
    for (;;) if ((await reader.read()).done) return true;
  })();
  expect(await Promise.race([ended, sleep(3000).then(() => false)])).toBe(true);
});
