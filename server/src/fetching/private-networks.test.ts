import dns from 'node:dns';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { guardedLookup } from './addresses';
import { fetchGuarded, type FetchRules } from './fetcher';

/**
 * Whether a page can make the server ask something that only the server can reach (OWASP ASVS 5, 1.3.6: server-side request
 * forgery). A site of ours stands on this machine's own address; what asks it has been led inside.
 */
const asked: string[] = [];
const inside = http.createServer((request, response) => {
  asked.push(`${request.headers.host ?? ''}${request.url ?? ''}`);
  const to = /^\/to\?(.*)$/.exec(request.url ?? '')?.[1];
  if (to === undefined) response.writeHead(200, { 'content-type': 'text/html' }).end('secret');
  else response.writeHead(302, { location: decodeURIComponent(to) }).end();
});
let port: number;
let rules: FetchRules;
beforeAll(() => new Promise<void>((resolve) => void inside.listen(0, '127.0.0.1', resolve)));
afterAll(() => new Promise((resolve) => void inside.close(resolve)));
beforeEach(() => {
  asked.length = 0;
  ({ port } = inside.address() as AddressInfo);
  rules = { allowHosts: [], timeoutMs: 5000, maxBytes: 1000, accept: '*/*' };
});
afterEach(() => jest.restoreAllMocks());

/** Stands in for the name servers: what each name leads to, one answer after the other. */
function nameServer(names: Record<string, string[][]>) {
  const lookup = (
    name: string,
    _options: unknown,
    callback: (error: Error | null, found: dns.LookupAddress[]) => void,
  ) => {
    const answers = names[name] ?? [];
    const found = (answers.length > 1 ? answers.shift() : answers[0]) ?? [];
    callback(
      found.length > 0 ? null : Object.assign(new Error('no such name'), { code: 'ENOTFOUND' }),
      found.map((address) => ({ address, family: address.includes(':') ? 6 : 4 })),
    );
  };
  return jest.spyOn(dns, 'lookup').mockImplementation(lookup as unknown as typeof dns.lookup);
}

// One of each block of the IANA special-purpose registries is in addresses.test.ts; here, what leads to this machine and
// its neighbours, in every way of writing it that WHATWG URL takes.
const INWARD = [
  '127.0.0.1',
  '127.1',
  '2130706433',
  '0x7f000001',
  '017700000001',
  '0177.0.0.01',
  '0x7f.1',
  '0',
  '%31%32%37.0.0.1',
  '１２７.0.0.1',
  '[::1]',
  '[0:0:0:0:0:0:0:1]',
  '[::]',
  '[::ffff:127.0.0.1]',
  '[::ffff:7f00:1]',
  '[::127.0.0.1]',
  '[2002:7f00:1::]',
  '[64:ff9b::127.0.0.1]',
  '[64:ff9b::a00:1]',
  '[fe80::1]',
  '[fd00::1]',
  '10.0.0.1',
  '192.168.0.1',
  '169.254.169.254',
  'localhost',
  'localhost.',
  'LOCALHOST',
  'a.localhost',
];

describe.each(INWARD)('%s', (host) => {
  it('is not asked when an address names it', async () => {
    const address = `http://${host}:${port}/`;
    expect(await fetchGuarded(address, rules)).toMatchObject({ ok: false, cause: { code: 'private-network' } });
    expect(asked).toEqual([]);
  });

  it('is not asked when a page leads on to it', async () => {
    const own = `127.0.0.1:${port}`;
    // A header holds no other signs; a site has to write those in percent codes.
    const to = host.replace(/[^\x20-\x7e]+/g, encodeURI);
    const address = `http://${own}/to?${encodeURIComponent(`http://${to}:${port + 1}/`)}`;
    const answer = await fetchGuarded(address, { ...rules, allowHosts: [own] });
    expect(answer).toMatchObject({ ok: false, cause: { code: 'private-network' } });
    expect(asked).toHaveLength(1);
  });
});

it.each(['file:///etc/passwd', 'ftp://127.0.0.1/', 'gopher://127.0.0.1:70/_', 'data:text/html,x', 'javascript:1'])(
  'a page that leads on to %s leads nowhere',
  async (to) => {
    const own = `127.0.0.1:${port}`;
    const answer = await fetchGuarded(`http://${own}/to?${encodeURIComponent(to)}`, { ...rules, allowHosts: [own] });
    expect(answer).toMatchObject({ ok: false, cause: { code: 'redirects-to-scheme' } });
    expect(asked).toHaveLength(1);
  },
);

describe('a name', () => {
  it('that leads inside is not asked', async () => {
    nameServer({ 'inside.example': [['127.0.0.1']], 'metadata.example': [['169.254.169.254', 'fd00:ec2::254']] });
    for (const name of ['inside.example', 'metadata.example'])
      expect(await fetchGuarded(`http://${name}:${port}/`, rules)).toMatchObject({
        ok: false,
        cause: { code: 'private-network' },
      });
    expect(asked).toEqual([]);
  });

  it('that leads outside when it is looked at, and inside when it is asked, is looked at once', async () => {
    // Of AS112-v4, which the IANA registry says is reachable from everywhere: there nothing answers.
    const servers = nameServer({ 'turns.example': [['192.31.196.1'], ['127.0.0.1']] });
    const answer = await fetchGuarded(`http://turns.example:${port}/`, { ...rules, timeoutMs: 500 });
    expect(answer.ok).toBe(false);
    expect(servers).toHaveBeenCalledTimes(1);
    // Asked once more it leads inside, and is refused by itself: each connection looks anew and takes what it has looked at.
    expect(await fetchGuarded(`http://turns.example:${port}/`, rules)).toMatchObject({
      ok: false,
      cause: { code: 'private-network' },
    });
    expect(asked).toEqual([]);
  });

  it('that leads both ways is asked outside only', async () => {
    nameServer({ 'both.example': [['127.0.0.1', '9.9.9.9', '::1', '2620:fe::fe', '10.0.0.1']] });
    const found = await new Promise((resolve, reject) => {
      guardedLookup(false)('both.example', { all: true }, (error, addresses) => {
        if (error) reject(error);
        else resolve(addresses);
      });
    });
    expect(found).toEqual([
      { address: '9.9.9.9', family: 4 },
      { address: '2620:fe::fe', family: 6 },
    ]);
  });

  it('that is allowed on one port is not on another', async () => {
    nameServer({ 'stand-in.example': [['127.0.0.1']] });
    const allowed = { ...rules, allowHosts: [`stand-in.example:${port}`] };
    expect(await fetchGuarded(`http://stand-in.example:${port}/`, allowed)).toMatchObject({ ok: true });
    expect(await fetchGuarded(`http://stand-in.example:${port + 1}/`, allowed)).toMatchObject({
      cause: { code: 'private-network' },
    });
  });
});
