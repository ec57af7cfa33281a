import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { brotliCompressSync, brotliDecompressSync } from 'node:zlib';
import express from 'express';
import { webRoutes } from './web';

const HASHED = `_expo/entry-${'0'.repeat(32)}.js`;
const FILES: Readonly<Record<string, string>> = {
  'index.html': '<!doctype html><title>The app</title>',
  [HASHED]: 'the app',
  'voice/worker.js': 'the voice',
  'guide/index.html': 'the guide',
  'plain.css': 'not compressed',
};
const COMPRESSED = [HASHED, 'voice/worker.js'];

// Also below a hidden folder, which is refused where a whole path is looked at.
const folder = path.join(mkdtempSync(path.join(tmpdir(), 'dorvel-web-')), '.hidden');
let server: Server;
beforeAll(async () => {
  for (const [name, words] of Object.entries(FILES)) {
    const file = path.join(folder, name);
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, words);
    if (COMPRESSED.includes(name)) writeFileSync(`${file}.br`, brotliCompressSync(words));
  }
  server = createServer(express().use(webRoutes(folder)));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  await new Promise((resolve) => server.close(resolve));
  rmSync(path.dirname(folder), { recursive: true });
});

/** By hand, since fetch would unpack what comes. */
const get = (where: string, accepts: string) =>
  new Promise<{ status: number | undefined; headers: Record<string, unknown>; body: Buffer }>((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    request({ port, path: where, headers: { 'accept-encoding': accepts } }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () =>
        resolve({ status: response.statusCode, headers: response.headers, body: Buffer.concat(parts) }),
      );
    })
      .on('error', reject)
      .end();
  });

it.each(COMPRESSED)('%s goes out as the build has compressed it, as what it is', async (name) => {
  const { headers, body } = await get(`/${name}`, 'gzip, deflate, br, zstd');
  expect(headers).toMatchObject({ 'content-encoding': 'br', 'content-type': expect.stringMatching(/javascript/) });
  expect(String(headers.vary)).toMatch(/accept-encoding/i);
  expect(brotliDecompressSync(body).toString()).toBe(FILES[name]);
});

it('who does not take it gets the file itself', async () => {
  const { headers, body } = await get(`/${HASHED}`, 'gzip');
  expect(headers['content-encoding']).toBeUndefined();
  expect(body.toString()).toBe('the app');
  expect((await get('/plain.css', 'br')).body.toString()).toBe('not compressed');
});

it.each(['br', 'identity'])('a hashed file is kept for ever, others are asked for again (%s)', async (accepts) => {
  expect((await get(`/${HASHED}`, accepts)).headers['cache-control']).toBe('public, max-age=31536000, immutable');
  expect((await get('/voice/worker.js', accepts)).headers['cache-control']).toBe('no-cache');
  expect((await get('/plain.css', accepts)).headers['cache-control']).toBe('no-cache');
});

it.each(['br', 'identity'])(
  'the worker of the voice may start its engine, and nothing else may (%s)',
  async (accepts) => {
    const policy = async (where: string) => (await get(where, accepts)).headers['content-security-policy'];
    expect(await policy('/voice/worker.js')).toMatch(/wasm-unsafe-eval/);
    expect(await policy(`/${HASHED}`)).toBeUndefined();
  },
);

it('a path without an extension is the app, one with an extension that is not there is not', async () => {
  expect((await get('/library/some-item', 'br')).body.toString()).toMatch(/The app/);
  expect((await get('/_expo/gone.js', 'br')).status).toBe(404);
  expect((await get('/../secret.js', 'br')).status).toBe(404);
});
