import http from 'node:http';
import type { AddressInfo } from 'node:net';
import zlib from 'node:zlib';
import { fetchGuarded, type FetchRules } from './fetcher';

type Answer = (request: http.IncomingMessage, response: http.ServerResponse) => void;
let answers: Record<string, Answer>;
let asked: http.IncomingMessage[];
let origin: string;
let rules: FetchRules;
const site = http.createServer((request, response) => {
  asked.push(request);
  (answers[request.url ?? ''] ?? ((_request, other) => other.writeHead(404).end()))(request, response);
});
beforeAll(() => new Promise<void>((resolve) => void site.listen(0, '127.0.0.1', resolve)));
afterAll(() => new Promise((resolve) => void site.close(resolve)));
beforeEach(() => {
  asked = [];
  const host = `127.0.0.1:${(site.address() as AddressInfo).port}`;
  origin = `http://${host}`;
  rules = { allowHosts: [host], timeoutMs: 10_000, maxBytes: 1_000_000, accept: 'text/html' };
});

const page =
  (body: string | Buffer, headers: http.OutgoingHttpHeaders = {}): Answer =>
  (_request, response) =>
    void response.writeHead(200, { 'content-type': 'text/html', ...headers }).end(body);
const to =
  (location: string, status = 302): Answer =>
  (_request, response) =>
    void response.writeHead(status, { location }).end();
const status =
  (code: number, headers = {}): Answer =>
  (_request, response) =>
    void response.writeHead(code, headers).end();

describe('redirects', () => {
  it('are followed, relative ones too, and only ones for good move an address', async () => {
    answers = { '/a': to('/b', 301), '/b': to('c?x#part', 308), '/c?x': page('here'), '/d': to('/a') };
    expect(await fetchGuarded(`${origin}/a`, rules)).toMatchObject({
      ok: true,
      url: `${origin}/c?x`,
      movedTo: `${origin}/c?x`,
    });
    expect(await fetchGuarded(`${origin}/d`, rules)).toMatchObject({ ok: true, movedTo: null });
    expect(await fetchGuarded(`${origin}/c?x`, rules)).toMatchObject({ ok: true, movedTo: null });
  });

  it.each([
    ['a circle', { '/a': to('/b'), '/b': to('/a') }, { code: 'redirects-in-circle' }],
    [
      'more than eight',
      Object.fromEntries(Array.from({ length: 12 }, (_, n) => [n === 0 ? '/a' : `/${n}`, to(`/${n + 1}`)])),
      { code: 'redirects-too-often', most: 8 },
    ],
    ['no address', { '/a': to('http://') }, { code: 'redirects-nowhere' }],
    ['another scheme', { '/a': to('file:///etc/passwd') }, { code: 'redirects-to-scheme', scheme: 'file:' }],
    ['a private network', { '/a': to('http://10.1.2.3/') }, { code: 'private-network' }],
    ['this machine by another port', { '/a': to('http://127.0.0.1:1/') }, { code: 'private-network' }],
    ['a number that is this machine', { '/a': to('http://2130706433/') }, { code: 'private-network' }],
    [
      'an address of the machine’s own services',
      { '/a': to('http://169.254.169.254/latest') },
      { code: 'private-network' },
    ],
    ['this machine in IPv6', { '/a': to('http://[::ffff:127.0.0.1]/') }, { code: 'private-network' }],
  ] as [string, Record<string, Answer>, object][])('to %s are refused, for good', async (_what, there, cause) => {
    answers = there;
    expect(await fetchGuarded(`${origin}/a`, rules)).toMatchObject({ ok: false, temporary: false, cause });
  });
});

describe('limits', () => {
  it('of time hold for an answer that never comes, and for one that never ends', async () => {
    answers = {
      '/never': () => undefined,
      '/slowly': (_request, response) => {
        response.writeHead(200, { 'content-type': 'text/html' });
        const drip = setInterval(() => response.write('x'), 50);
        response.on('close', () => clearInterval(drip));
      },
    };
    const late = { ok: false, temporary: true, cause: { code: 'no-answer', seconds: 0 } };
    const impatient = { ...rules, timeoutMs: 400 };
    expect(await fetchGuarded(`${origin}/never`, impatient)).toMatchObject(late);
    expect(await fetchGuarded(`${origin}/slowly`, impatient)).toMatchObject(late);
  });

  it('of size hold for what is unpacked, not for what is sent', async () => {
    const bomb = zlib.gzipSync(Buffer.alloc(3_000_000));
    expect(bomb.length).toBeLessThan(10_000);
    answers = {
      '/bomb': page(bomb, { 'content-encoding': 'gzip' }),
      '/large': page(Buffer.alloc(1_000_001)),
      '/just': page(Buffer.alloc(1_000_000)),
    };
    const refused = { ok: false, temporary: false, cause: { code: 'too-large', megabytes: 1 } };
    expect(await fetchGuarded(`${origin}/bomb`, rules)).toMatchObject(refused);
    expect(await fetchGuarded(`${origin}/large`, rules)).toMatchObject(refused);
    expect(await fetchGuarded(`${origin}/just`, rules)).toMatchObject({ ok: true });
  });

  it.each(['gzip', 'br', 'deflate'])('let %s through that is cut off, as far as it goes', async (encoding) => {
    const text = 'The ferry leaves at noon. '.repeat(2000);
    const packed = { gzip: zlib.gzipSync, br: zlib.brotliCompressSync, deflate: zlib.deflateSync }[encoding]!(text);
    answers = { '/whole': page(packed, { 'content-encoding': encoding }) };
    const whole = await fetchGuarded(`${origin}/whole`, rules);
    expect(whole.ok && whole.body.toString()).toBe(text);
  });

  it('let through what a server sent before it broke off', async () => {
    const text = Array.from({ length: 9000 }, (_, n) => `Line ${n}.`).join('\n');
    answers = { '/cut': page(zlib.gzipSync(text).subarray(0, 9000), { 'content-encoding': 'gzip' }) };
    const cut = await fetchGuarded(`${origin}/cut`, rules);
    expect(cut.ok && text.startsWith(cut.body.toString()) && cut.body.length > 1000).toBe(true);
  });
});

describe('what a site answers', () => {
  // RFC 9110: 404 and 410 (15.5.5, 15.5.11), 429 and 503 with Retry-After (10.2.3), 304 (15.4.5).
  it.each([
    [404, {}, { temporary: false, gone: true }],
    [410, {}, { temporary: false, gone: true }],
    [403, {}, { temporary: false }],
    [500, {}, { temporary: true, retryAfterMs: null }],
    [503, { 'retry-after': '120' }, { temporary: true, retryAfterMs: 120_000 }],
    [429, { 'retry-after': '999999999' }, { temporary: true, retryAfterMs: 86_400_000 }],
    [429, { 'retry-after': 'soon' }, { temporary: true, retryAfterMs: null }],
  ])('with %d is a failure that says so', async (code, headers, failure) => {
    answers = { '/a': status(code, headers) };
    const fetched = await fetchGuarded(`${origin}/a`, rules);
    expect(fetched).toMatchObject({ ok: false, cause: { code: 'answered', status: code }, ...failure });
    expect('gone' in fetched).toBe('gone' in failure);
  });

  it('is asked for only if it has changed, and says for how long it stays', async () => {
    answers = {
      '/feed': (request, response) =>
        request.headers['if-none-match'] === '"7"'
          ? void response.writeHead(304).end()
          : void response.writeHead(200, { etag: '"7"', 'cache-control': 'public, max-age=3600' }).end('x'),
    };
    const first = await fetchGuarded(`${origin}/feed`, rules);
    expect(first).toMatchObject({ ok: true, etag: '"7"', maxAgeSeconds: 3600 });
    const unless = { etag: '"7"', lastModified: null };
    expect(await fetchGuarded(`${origin}/feed`, { ...rules, unless })).toMatchObject({
      ok: false,
      unchanged: true,
    });
  });

  it('goes to nobody’s server: no cookie and no referrer are sent', async () => {
    answers = { '/a': to('/b'), '/b': page('x', { 'set-cookie': 'a=b' }) };
    await fetchGuarded(`${origin}/a`, rules);
    expect(asked).toHaveLength(2);
    for (const { headers } of asked) expect([headers.cookie, headers.referer]).toEqual([undefined, undefined]);
  });
});

it('does not go where a private address is named outright', async () => {
  answers = { '/a': page('secret') };
  expect(await fetchGuarded(`${origin}/a`, { ...rules, allowHosts: [] })).toMatchObject({
    ok: false,
    cause: { code: 'private-network' },
  });
  expect(asked).toEqual([]);
});
