import { mkdtempSync, rmSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { tagsOf } from '@dorvel/core/model';
import type { FeedChanges, Mutation } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { eq } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { workshopInPlace } from '../apart/in-place';
import { type Database, openDatabase } from '../db/open';
import { feeds } from '../db/schema';
import { feedSchedule } from '../library/feeds';
import { type Library, libraryOf } from '../library/library';
import { takeMutation } from '../library/take-mutations';
import { TEXT_TASKS } from '../tasks/texts';
import { pollFeed } from './poll';

type Answer = { status?: number; headers?: Record<string, string>; body?: string | Buffer };

let folder: string;
let database: Database;
let library: Library;
let site: http.Server;
let origin: string;
let answers: Record<string, Answer | ((request: http.IncomingMessage) => Answer)>;
let asked: http.IncomingMessage[];
let now: number;
const clock = createClock('test', () => now);

const rss = (...names: string[]) =>
  `<rss version="2.0"><channel><title>Notes</title><link>https://example.org/</link>${names
    .map((name) => `<item><title>${name}</title><link>https://example.org/${name}</link></item>`)
    .join('')}</channel></rss>`;

beforeAll(async () => {
  site = http.createServer((request, response) => {
    asked.push(request);
    const known = answers[request.url ?? ''] ?? { status: 404 };
    const { status = 200, headers = {}, body = '' } = typeof known === 'function' ? known(request) : known;
    response.writeHead(status, { 'content-type': 'application/xml', ...headers }).end(body);
  });
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
  origin = `http://127.0.0.1:${String((site.address() as AddressInfo).port)}`;
});
afterAll(() => new Promise((resolve) => site.close(resolve)));

beforeEach(async () => {
  answers = {};
  asked = [];
  now = Date.UTC(2026, 10, 25);
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
  const account = await accountRepository(database, () => now).create(
    'a@example.org',
    'A Reader',
    'a long enough passphrase',
  );
  library = libraryOf(database, account?.id ?? '');
});
afterEach(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

const push = (mutation: Mutation) =>
  library.change((write) => takeMutation(write, mutation, { clock, now: () => now }));

async function follow(address: string, set: FeedChanges = {}): Promise<string> {
  const feedId = uuidv7();
  const stamped = () => ({ id: uuidv7(), stamp: clock.next(), feedId });
  await push({ ...stamped(), type: 'follow', address, followedAt: now });
  await push({ ...stamped(), type: 'feed', set });
  return feedId;
}

async function look(id: string) {
  await pollFeed({ id, accountId: library.accountId }, library, {
    workshop: workshopInPlace(TEXT_TASKS),
    rules: { allowHosts: [origin.slice('http://'.length)], timeoutMs: 5000 },
    clock,
    now: () => now,
    shortestMs: 60_000,
  });
  const { feeds, items } = (await library.changesAfter(0)).records;
  const feed = feeds.find((each) => each.id === id);
  if (!feed) throw new Error('the feed is gone');
  return { feed, items };
}

describe('looking at a feed', () => {
  it('puts what is new before the reader, once, and saves nothing by itself', async () => {
    answers['/rss'] = { body: rss('b', 'a') };
    const id = await follow(`${origin}/rss`);
    expect((await look(id)).feed.state).toMatchObject({
      state: 'working',
      title: 'Notes',
      outcome: { code: 'new', count: 2 },
      entries: [{ title: 'b' }, { title: 'a' }],
    });
    answers['/rss'] = { body: rss('c', 'b') };
    now += 1000;
    const { feed, items } = await look(id);
    expect(feed.state.entries.map(({ title, arrivedAt }) => [title, arrivedAt === now])).toEqual([
      ['c', true],
      ['b', false],
      ['a', false],
    ]);
    // What left the feed and comes back is no news.
    answers['/rss'] = { body: rss('a') };
    expect((await look(id)).feed.state).toMatchObject({ outcome: { code: 'nothing-new' } });
    expect(items).toEqual([]);
  });

  // RFC 9110, 13.1: conditional requests.
  it('asks only for what has changed', async () => {
    answers['/rss'] = (request) =>
      request.headers['if-none-match'] === '"one"' &&
      request.headers['if-modified-since'] === 'Tue, 24 Nov 2026 08:00:00 GMT'
        ? { status: 304 }
        : { body: rss('a'), headers: { etag: '"one"', 'last-modified': 'Tue, 24 Nov 2026 08:00:00 GMT' } };
    const id = await follow(`${origin}/rss`);
    await look(id);
    const { feed } = await look(id);
    expect(feed.state).toMatchObject({ state: 'working', outcome: { code: 'nothing-new' } });
    expect(feed.state.entries).toHaveLength(1);
    expect(asked.map((request) => request.headers['if-none-match'])).toEqual([undefined, '"one"']);
  });

  it('saves everything where the reader wants that, tagged, the newest on top', async () => {
    answers['/rss'] = { body: rss('b', 'a') };
    const id = await follow(`${origin}/rss`, { mode: 'save-all', tag: 'Water/Tides' });
    const { items } = await look(id);
    expect(items.map((item) => [item.address, tagsOf(item), item.choices.stage.value])).toEqual([
      ['https://example.org/a', ['Water/Tides'], 'inbox'],
      ['https://example.org/b', ['Water/Tides'], 'inbox'],
    ]);
    expect((await look(id)).items).toHaveLength(2);
    // Let go of, and announced again under another key: a feed does not bring back what the reader has decided on.
    const [first] = items;
    await push({
      type: 'choose',
      id: uuidv7(),
      itemId: first?.id ?? '',
      stamp: clock.next(),
      set: { stage: 'let-go' },
    });
    answers['/rss'] = { body: rss('a').replace('</item>', '<guid>anew</guid></item>') };
    const after = await look(id);
    expect(after.feed.state.outcome).toEqual({ code: 'new', count: 1 });
    expect(after.items.map((item) => item.choices.stage.value)).toEqual(['inbox', 'let-go']);
  });

  it('finds the feed that a page names, and goes there from then on', async () => {
    answers['/'] = {
      headers: { 'content-type': 'text/html' },
      body: '<html><link rel="alternate" type="application/rss+xml" href="/feed"><p>A page</p></html>',
    };
    answers['/feed'] = { body: rss('a') };
    const id = await follow(`${origin}/`);
    expect((await look(id)).feed.state).toMatchObject({
      feedAddress: `${origin}/feed`,
      outcome: { code: 'new' },
    });
    await look(id);
    expect(asked.map(({ url }) => url)).toEqual(['/', '/feed', '/feed']);
    const second = await follow(`${origin}/feed`);
    expect((await look(second)).feed.state.outcome).toEqual({ code: 'followed-twice' });
  });

  it('moves with a feed that has moved for good, not with one that is elsewhere for now', async () => {
    answers['/new'] = { body: rss('a') };
    answers['/old'] = { status: 301, headers: { location: '/new' } };
    answers['/away'] = { status: 302, headers: { location: '/new' } };
    for (const [from, ways] of [
      ['/old', ['/old', '/new', '/new']],
      ['/away', ['/away', '/new', '/away', '/new']],
    ] as const) {
      asked = [];
      const id = await follow(origin + from);
      await look(id);
      await look(id);
      expect(asked.map(({ url }) => url)).toEqual(ways);
    }
  });

  it('says that a feed is broken, keeps it and what it brought, and tells when it works again', async () => {
    answers['/rss'] = { body: rss('a') };
    const id = await follow(`${origin}/rss`);
    await look(id);
    answers['/rss'] = { status: 410 };
    const since = now;
    expect((await look(id)).feed.state).toMatchObject({
      state: 'broken',
      brokenSince: since,
      outcome: { code: 'failed', cause: { code: 'answered', status: 410 }, entriesStay: true },
      entries: [{ title: 'a' }],
    });
    now += 1000;
    answers['/rss'] = { body: '<html>Gone fishing</html>' };
    expect((await look(id)).feed.state).toMatchObject({
      brokenSince: since,
      outcome: { code: 'failed', cause: { code: 'no-feed' } },
    });
    answers['/rss'] = { body: rss('b', 'a') };
    expect((await look(id)).feed.state).toMatchObject({
      state: 'working',
      brokenSince: null,
      outcome: { code: 'new', count: 1 },
    });
  });

  // XML 1.0, appendix F: the declaration names the encoding.
  it('reads a feed in the encoding that it declares', async () => {
    const [before = '', after = ''] = rss('a').split('Notes');
    answers['/rss'] = {
      body: Buffer.concat([
        Buffer.from(`<?xml version="1.0" encoding="windows-1251"?>${before}`),
        Buffer.from([0xc2, 0xee, 0xe4, 0xe0]),
        Buffer.from(after),
      ]),
    };
    const id = await follow(`${origin}/rss`);
    expect((await look(id)).feed.state.title).toBe('Вода');
  });
});

describe('what is due', () => {
  it('is taken whatever one account has sent as an address', async () => {
    const schedule = feedSchedule(database, () => now, 5000);
    const bare = await follow('one.example/feed');
    const refused = uuidv7();
    const answer = await push({
      type: 'follow',
      id: uuidv7(),
      feedId: refused,
      stamp: clock.next(),
      address: 'no address',
      followedAt: now,
    });
    expect(answer.outcome).toBe('refused');
    expect((await schedule.take(5)).map(({ id }) => id)).toEqual([bare]);
    expect((await library.changesAfter(0)).records.feeds.map(({ address }) => address)).toEqual([
      'https://one.example/feed',
    ]);
  });

  it('is taken once, from each site one at a time, and not when it is not followed', async () => {
    const schedule = feedSchedule(database, () => now, 5000);
    const [one] = [await follow('https://one.example/a'), await follow('https://one.example/b')];
    const two = await follow('https://two.example/a');
    await follow('https://three.example/a', { following: false });
    expect((await schedule.take(5)).map(({ id }) => id)).toEqual([one, two]);
    expect(await schedule.take(5)).toEqual([]);
    expect(await schedule.nextDue()).toBe(now + 3000);
    now += 3000;
    expect(await schedule.take(5)).toHaveLength(1);
  });

  it('are asked for once in a while, however often a reader asks', async () => {
    const schedule = feedSchedule(database, () => now, 5000);
    answers['/feed'] = { body: rss('one') };
    const feedId = await follow(`${origin}/feed`);
    let looks = 0;
    for (let press = 0; press < 30; press++) {
      await push({ id: uuidv7(), stamp: clock.next(), type: 'feed', feedId, set: { askedAt: now } });
      for (const { id } of await schedule.take(5)) {
        await look(id);
        looks++;
      }
      now += 500;
    }
    // Thirty presses in fifteen seconds.
    expect([looks, asked.length]).toEqual([3, 3]);
    now += 5000;
    expect(await schedule.take(5)).toHaveLength(1);
  });

  it('stop no other when one of them cannot be read', async () => {
    const schedule = feedSchedule(database, () => now, 5000);
    const broken = await follow('https://one.example/a');
    const sound = await follow('https://two.example/a');
    await database.read
      .update(feeds)
      .set({ record: { nothing: true } })
      .where(eq(feeds.id, broken));
    expect((await schedule.take(5)).map(({ id }) => id)).toEqual([sound]);
  });
});
