import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import http from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileAddress } from '@dorvel/core/address';
import { type Item, LAST_INSTANT } from '@dorvel/core/model';
import type { Mutation } from '@dorvel/core/records';
import { createClock, PROTOCOL, PROTOCOL_HEADER } from '@dorvel/core/sync';
import { captureWords } from '@dorvel/core/wording';
import { expect, test } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { v7 as uuidv7 } from 'uuid';
import { type OwnServer, ownServer } from '../own-server';
import { BOUNDS_PORT, BOUNDS_SITE_PORT } from '../ports';
import { Client } from './client';

const clock = createClock('bounds', Date.now);
const base = (itemId = uuidv7()) => ({ id: uuidv7(), itemId, stamp: clock.next() });
const long = (letter: string, length: number) => letter.repeat(length);
const page = (head: string, title = 'A page') =>
  `<html lang="en"><head><title>${title}</title>${head}</head><body><article><h1>${title}</h1>${'<p>It says at some length what there is to be said of ropes and lanterns, and says it again.</p>'.repeat(12)}</article></body></html>`;
const jsonLd = (data: object) =>
  `<script type="application/ld+json">${JSON.stringify({ '@context': 'https://schema.org', '@type': 'Article', ...data })}</script>`;

/** Pages, each of which says something of itself that no record of ours has room for. */
const PAGES: Readonly<Record<string, string>> = {
  'a title of 5,000 letters': page('', long('t', 5000)),
  'an author of 900 letters': page(jsonLd({ headline: 'H', author: { '@type': 'Person', name: long('n', 900) } })),
  'ninety authors': page(
    jsonLd({
      headline: 'H',
      author: Array.from({ length: 90 }, (_, n) => ({ '@type': 'Person', name: `Author ${n}` })),
    }),
  ),
  'a licence at an address of 4,000': page(`<link rel="license" href="https://x.example/${long('l', 4000)}">`),
  'a canonical address of 100,000': page(
    `<link rel="canonical" href="http://odd.localhost:${BOUNDS_SITE_PORT}/${long('c', 100_000)}">`,
  ),
  'a site name of 2,000': page(`<meta property="og:site_name" content="${long('s', 2000)}">`),
  'a language that is a novel': `<html lang="${long('x', 300)}"><title>L</title><article>${'<p>Some words about the sea and what is in it.</p>'.repeat(20)}</article>`,
  'a date of 400 letters': page(jsonLd({ headline: 'H', datePublished: `2026-11-01T10:00:00${long('0', 400)}` })),
  'halves of characters': page(
    jsonLd({ headline: '\ud800 half \udc00', author: { '@type': 'Person', name: '\ud83d' } }),
  ),
  NULs: page(jsonLd({ headline: 'NUL \u0000 in it' })),
  'facts out of all bounds': page(
    jsonLd({
      '@type': 'Product',
      name: long('p', 900),
      offers: { '@type': 'Offer', price: 1e308, priceCurrency: long('E', 60) },
    }),
  ),
};
const names = Object.keys(PAGES);

let site: http.Server;
let server: OwnServer;
let client: Client;
test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  site = http.createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://x');
    if (url.pathname === '/to-a-long-scheme')
      return void response.writeHead(302, { location: `${long('z', 600)}:nowhere` }).end();
    const html = PAGES[names[Number(url.searchParams.get('n'))] ?? ''] ?? page('');
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(html);
  });
  site.listen(BOUNDS_SITE_PORT, '127.0.0.1');
  await once(site, 'listening');
  server = ownServer(BOUNDS_PORT, {
    DORVEL_DEMO: '1',
    DORVEL_ALLOW_HOSTS: `*.localhost:${BOUNDS_SITE_PORT}`,
    DORVEL_RETRY_WAITS: '200',
    DORVEL_FEED_REST: '1000',
  });
  await server.start();
  client = await new Client(server.origin).signIn();
});
test.afterAll(async () => {
  await server.clear();
  site.close();
});

/** A device that is new fetches the whole library; and the library can be searched. */
async function wholeLibrary(): Promise<Item[]> {
  const fresh = await new Client(server.origin).signIn();
  const items = await fresh.items();
  const found = await fresh.call('POST', '/find', {
    written: 'ropes',
    scope: 'all',
    typing: false,
    zoneMinutes: 0,
    from: 0,
    passages: 5,
  });
  expect(found.status).toBe(200);
  return items;
}
const at = (path: string) => `http://odd.localhost:${BOUNDS_SITE_PORT}${path}`;

for (const [n, name] of names.entries())
  test(`a page with ${name} shuts nobody out`, async () => {
    const item = await client.settled(await client.save(at(`/page?n=${n}`)));
    expect(item.capture.state).toBe('arrived');
    expect((await wholeLibrary()).map(({ id }) => id)).toContain(item.id);
  });

test('nor does a redirect to a long scheme, or an address of 3,000 letters beyond ASCII', async () => {
  const astray = await client.settled(await client.save(at('/to-a-long-scheme')));
  expect(captureWords(astray.capture)).toMatch(/^The page redirects to a “z+…” address, .*address is kept/);
  const long = await client.settled(await client.save(at(`/${'é'.repeat(3000)}`)));
  expect(long.address.length).toBeGreaterThan(18_000);
  expect((await wholeLibrary()).map(({ id }) => id)).toEqual(expect.arrayContaining([astray.id, long.id]));
});

test('nor does a book with eighty authors, a PDF whose author has 900 letters, or a text with a title of 3,000', async () => {
  const given = async (
    type: 'application/epub+zip' | 'application/pdf' | 'text/markdown' | 'message/rfc822',
    body: Buffer,
  ) => {
    const itemId = uuidv7();
    const address = fileAddress(randomBytes(32).toString('base64url'));
    await client.push(
      { ...base(itemId), type: 'save', address, savedAt: Date.now() },
      {
        ...base(itemId),
        type: 'provide',
        given: { type, body: body.toString('base64'), encoding: 'base64' },
      },
    );
    await sleep(20);
    return client.settled(itemId);
  };
  const creators = Array.from({ length: 80 }, (_, n) => `<dc:creator>C ${n}</dc:creator>`).join('');
  const book = Buffer.from(
    zipSync({
      mimetype: [strToU8('application/epub+zip'), { level: 0 }],
      'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="b.opf"/></rootfiles></container>'),
      'b.opf': strToU8(
        `<package><metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>${'B'.repeat(2000)}</dc:title>${creators}</metadata><manifest><item id="c" href="c.xhtml" media-type="application/xhtml+xml"/></manifest><spine><itemref idref="c"/></spine></package>`,
      ),
      'c.xhtml': strToU8(`<html><body>${'<p>A chapter about ropes and lanterns.</p>'.repeat(20)}</body></html>`),
    }),
  );
  const read = await given('application/epub+zip', book);
  expect(read.capture.page?.authors).toHaveLength(40);
  expect(read.capture.page?.title).toHaveLength(1000);
  const pdf = await given('application/pdf', plainPdf('P'.repeat(1400), 'A'.repeat(900)));
  expect(pdf.capture.page?.title).toHaveLength(1000);
  expect(pdf.capture.page?.authors.map(({ length }) => length)).toEqual([200]);
  const markdown = await given('text/markdown', Buffer.from(`# ${'M'.repeat(3000)}\n\nRopes.`));
  expect(markdown.capture.page?.title).toHaveLength(1000);
  const letter = await given(
    'message/rfc822',
    Buffer.from(
      `From: a@b.example\r\nTo: c@d.example\r\nSubject: ${'S'.repeat(1100)}\r\nMIME-Version: 1.0\r\n\r\nRopes.`,
    ),
  );
  expect(letter.capture.page?.title).toHaveLength(1000);
  expect((await wholeLibrary()).length).toBeGreaterThan(names.length);
});

/** A PDF of one page, by hand. */
function plainPdf(title: string, author: string): Buffer {
  const content = 'BT /F 12 Tf 72 720 Td (Ropes and lanterns, and what there is to be said of them.) Tj ET';
  return Buffer.from(
    `%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj\n3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 600 800]/Contents 4 0 R/Resources<</Font<</F 5 0 R>>>>>>endobj\n4 0 obj<</Length ${content.length}>>stream\n${content}\nendstream endobj\n5 0 obj<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>endobj\n6 0 obj<</Title(${title})/Author(${author})>>endobj\ntrailer<</Root 1 0 R/Info 6 0 R>>`,
  );
}

test('a change that does not fit is refused by itself, and what comes with it and after it is taken', async () => {
  const itemId = await client.save(at('/page?n=99'));
  const tags = (from: number, count: number): Mutation => ({
    ...base(itemId),
    type: 'tag',
    set: Object.fromEntries(Array.from({ length: count }, (_, n) => [`t${from + n}`, `t${from + n}`])),
  });
  const results = await client.push(
    tags(0, 150),
    tags(150, 80),
    { ...base(itemId), type: 'choose', set: { title: 'still taken' } },
    { ...base(), type: 'save', address: at('/page?n=98'), savedAt: Number.MAX_SAFE_INTEGER },
    { ...base(itemId), type: 'tag', set: { last: 'last' } },
  );
  expect(results.map(({ outcome }) => outcome)).toEqual(['applied', 'refused', 'applied', 'refused', 'applied']);
  expect(results[1]).toMatchObject({ detail: expect.stringContaining('at most 200 tags') });
  const item = (await wholeLibrary()).find(({ id }) => id === itemId)!;
  expect(Object.keys(item.tags)).toHaveLength(151);
  expect(item.choices.title.value).toBe('still taken');
  for (const each of await wholeLibrary()) expect(each.savedAt).toBeLessThanOrEqual(LAST_INSTANT);
});

test('a clock that is ahead drags nobody: the stamp that stands comes back, and the next press wins', async () => {
  const itemId = await client.save(at('/page?n=97'));
  const far = createClock('far', () => Date.now() + 24 * 60 * 60 * 1000 - 1000).next();
  const [first] = await client.push({ ...base(itemId), stamp: far, type: 'choose', set: { stage: 'kept' } });
  const stamp = first?.outcome === 'applied' ? first.stamp : undefined;
  expect(stamp).toBeDefined();
  expect(stamp! < far).toBe(true);
  // Another device of the reader's, whose clock is right.
  const next = createClock('near', Date.now).next(stamp!);
  await client.push({ ...base(itemId), stamp: next, type: 'choose', set: { stage: 'queue' } });
  expect((await client.items()).find(({ id }) => id === itemId)?.choices.stage.value).toBe('queue');
});

test('JSON nested without end is refused before it is read, and nobody waits for it', async () => {
  const nested = '['.repeat(3_900_000) + ']'.repeat(3_900_000);
  const send = async (cookie: string, path: string) => {
    const before = performance.now();
    const response = await fetch(`${server.origin}/api${path}`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json', [PROTOCOL_HEADER]: String(PROTOCOL) },
      body: nested,
    });
    return { status: response.status, ms: performance.now() - before };
  };
  let slowest = 0;
  let done = false;
  const watch = (async () => {
    while (!done) {
      const before = performance.now();
      await fetch(`${server.origin}/healthz`);
      slowest = Math.max(slowest, performance.now() - before);
      await sleep(10);
    }
  })();
  // Signed out it is not read at all; at sign-in no more than 10 KB is; signed in its depth is seen first.
  expect((await send('', '/sync/push')).status).toBe(401);
  expect((await send('', '/session')).status).toBe(413);
  expect((await send(client.cookie, '/sync/push')).status).toBe(400);
  done = true;
  await watch;
  expect(slowest).toBeLessThan(1000);
});

test('a feed that is nested without end, and one at a long scheme, stop no other feed', async () => {
  const follow = (path: string) => {
    const feedId = uuidv7();
    return client
      .call('POST', '/sync/push', {
        mutations: [
          {
            id: uuidv7(),
            stamp: clock.next(),
            type: 'follow',
            feedId,
            address: at(path),
            followedAt: Date.now(),
          },
        ],
      })
      .then(() => feedId);
  };
  serveFeeds();
  const astray = await follow('/to-a-long-scheme');
  const deep = await follow('/page?n=deep');
  const sound = await follow('/page?n=sound');
  const state = async (feedId: string) => {
    const pulled = (await (await client.call('GET', '/sync/pull?after=0')).json()) as {
      feeds: { id: string; state: { state: string; says: string } }[];
    };
    return pulled.feeds.find(({ id }) => id === feedId)?.state;
  };
  await expect.poll(async () => (await state(astray))?.state, { timeout: 40_000 }).toBe('broken');
  await expect.poll(async () => (await state(deep))?.state, { timeout: 40_000 }).toBe('broken');
  await expect.poll(async () => (await state(sound))?.state, { timeout: 40_000 }).toBe('working');
});

function serveFeeds() {
  site.removeAllListeners('request');
  site.on('request', (request: http.IncomingMessage, response: http.ServerResponse) => {
    if (request.url?.startsWith('/to-a-long-scheme'))
      return void response.writeHead(302, { location: `${long('z', 600)}:nowhere` }).end();
    const body = request.url?.includes('deep')
      ? `<rss><channel>${'<a>'.repeat(80_000)}`
      : '<rss version="2.0"><channel><title>Sound</title><item><title>One</title><link>https://x.example/1</link></item></channel></rss>';
    response.writeHead(200, { 'content-type': 'application/rss+xml' }).end(body);
  });
}
