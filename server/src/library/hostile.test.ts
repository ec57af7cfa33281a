import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { articleOfTree } from '@dorvel/core/extract';
import { createClock, PullResponse } from '@dorvel/core/sync';
import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { workshopInPlace } from '../apart/in-place';
import { capture } from '../capture/capture';
import { type Database, openDatabase } from '../db/open';
import { pollFeed } from '../feeds/poll';
import { folderStore } from '../files/files';
import { jobRepository } from '../jobs/queue';
import { findableLibrary } from './findable';
import { type Library, libraryOf } from './library';
import { saveFor } from './save-for';
import { takePush } from './take-mutations';

jest.mock('../fetching/fetcher', () => ({
  fetchGuarded: (address: string) =>
    Promise.resolve({
      ok: true,
      url: address,
      contentType: 'text/html',
      body: Buffer.from('x'),
      etag: null,
      lastModified: null,
      maxAgeSeconds: null,
      movedTo: null,
    }),
}));

let folder: string;
let database: Database;
let library: Library;
const clock = createClock('test', Date.now);
const tools = { clock, now: Date.now };

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
  const made = await accountRepository(database, Date.now).create('a@example.org', 'A', 'a long enough passphrase');
  library = libraryOf(database, made?.id ?? '');
});
afterAll(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Lengths, types, halves of characters, NULs, numbers out of all range: what nobody honest sends. */
const text = fc.oneof(
  { weight: 3, arbitrary: fc.string({ maxLength: 40 }) },
  fc.string({ unit: 'binary', maxLength: 2500 }),
  fc.constantFrom('', '\ud800', '\0', 'x'.repeat(9000), 'é'.repeat(9000), `https://x.example/${'y'.repeat(90_000)}`),
);
const number = fc.oneof(fc.double(), fc.constantFrom(-1, 0.5, 2 ** 53, 1e308, NaN, Infinity, -Infinity));
const anything = fc.oneof(
  text,
  number,
  fc.constantFrom(null, undefined, true),
  fc.array(text, { maxLength: 300 }),
  fc.object({ maxDepth: 2, maxKeys: 4 }),
);
const date = fc.oneof(fc.constantFrom(null, '2026-11-27', '+275760-09-13', 'never'), text);

/** A device that is new pulls all of it, and can look for something in it. */
async function pulled(): Promise<number> {
  let after = 0;
  let items = 0;
  for (let more = true; more;) {
    const { unread, records, ...head } = await library.changesAfter(after);
    expect(unread).toBe(0);
    const answer = JSON.parse(JSON.stringify({ ...records, ...head, now: Date.now(), epoch: 'one' })) as unknown;
    const read = PullResponse.parse(answer);
    expect(read.unread).toBe(0);
    items += read.records.items.length;
    ({ cursor: after, more } = read);
  }
  await findableLibrary(database, library.accountId).facts();
  return items;
}

async function saved(address: string): Promise<string> {
  const result = await library.change((write) => saveFor(write, { address }, tools));
  if (!result.ok) throw new Error(result.says);
  return result.item.id;
}

describe('whatever comes in, a new device pulls the whole library', () => {
  it('from pages', async () => {
    const tree = {
      type: 'root' as const,
      children: [
        {
          type: 'element' as const,
          tagName: 'p',
          properties: {},
          children: [{ type: 'text' as const, value: 'Ropes.' }],
        },
      ],
    };
    const said = fc.record(
      {
        title: anything,
        authors: fc.oneof(fc.array(text, { maxLength: 90 }), anything),
        siteName: anything,
        publishedAt: date,
        modifiedAt: date,
        licenceUrl: anything,
        language: fc.oneof(fc.constantFrom('en', null), text),
        excerpt: anything,
        canonicalUrl: fc.oneof(fc.constant(null), text),
        facts: fc.array(fc.object({ maxDepth: 2 }), { maxLength: 90 }),
        wordCount: number,
        minutes: number,
      },
      { requiredKeys: [] },
    );
    let n = 0;
    await fc.assert(
      fc.asyncProperty(said, async (changes) => {
        const itemId = await saved(`https://pages.example/${n++}`);
        const [job] = await jobRepository(database, Date.now).lane('quick').take(1);
        const article = { ...articleOfTree(tree, 'A'), ...changes };
        const nothing = workshopInPlace({});
        await capture(job!, library, {
          extractor: {
            extract: () => Promise.resolve({ ok: true, article: article as never, attached: [] }),
            terms: () => Promise.resolve('rope'),
          },
          files: folderStore(path.join(folder, 'pictures')),
          darkrooms: { small: nothing, large: nothing },
          rules: { allowHosts: [], timeoutMs: 1000 },
          siteIconAt: () => Promise.resolve(null),
          retryWaitsMs: [],
          pictureQuotaBytes: null,
          ...tools,
        });
        expect((await library.item(itemId))?.address).toBe(`https://pages.example/${n - 1}`);
        await pulled();
      }),
      { numRuns: 40 },
    );
  });

  it('from feeds', async () => {
    const entry = fc.record({
      key: text,
      address: fc.oneof(fc.constant('https://x.example/1'), text),
      title: anything,
      authors: fc.array(text, { maxLength: 40 }),
      publishedAt: date,
      updatedAt: date,
      summary: anything,
    });
    const feed = fc.record({
      title: anything,
      siteUrl: anything,
      restMinutes: fc.oneof(fc.constant(null), number),
      entries: fc.array(entry, { maxLength: 80 }),
    });
    await fc.assert(
      fc.asyncProperty(feed, fc.constantFrom('choose', 'save-all'), async (read, mode) => {
        const feedId = uuidv7();
        const base = () => ({ id: uuidv7(), stamp: clock.next(), feedId });
        await takePush(
          library,
          {
            mutations: [
              { ...base(), type: 'follow', address: `https://feeds.example/${feedId}`, followedAt: 5 },
              { ...base(), type: 'feed', set: { mode } },
            ],
          },
          tools,
        );
        await pollFeed({ id: feedId, accountId: library.accountId }, library, {
          workshop: workshopInPlace({ feed: () => ({ read, named: null }) }),
          rules: { allowHosts: [], timeoutMs: 1000 },
          shortestMs: 1000,
          ...tools,
        });
        await pulled();
      }),
      { numRuns: 40 },
    );
  });

  it('from devices: what cannot be taken is refused by itself, and what is beside it is taken', async () => {
    const itemId = await saved('https://devices.example/known');
    const hostile = fc.record(
      {
        type: fc.constantFrom(
          'save',
          'choose',
          'tag',
          'progress',
          'mark',
          'write',
          'card',
          'search',
          'follow',
          'activity',
          'provide',
          'nothing',
        ),
        id: fc.oneof(fc.uuid(), text),
        itemId: fc.constantFrom(itemId, uuidv7(), 'no id'),
        stamp: fc.oneof(fc.constant('0mj000000-0000-a'), text),
        set: fc.dictionary(
          fc.constantFrom('stage', 'title', 'note', 'queueRank', 'raisedAt', 'text', 'boats', 'tidied'),
          anything,
        ),
        address: text,
        savedAt: number,
        madeAt: number,
        followedAt: number,
        furthest: number,
        position: anything,
        given: anything,
        activity: anything,
        passage: anything,
        kind: anything,
        noteId: fc.uuid(),
        cardId: fc.uuid(),
        searchId: fc.uuid(),
        feedId: fc.uuid(),
        highlightId: fc.uuid(),
        noteItemId: fc.constant(null),
        on: anything,
        source: fc.constant(null),
      },
      { requiredKeys: ['type'] },
    );
    await fc.assert(
      fc.asyncProperty(fc.array(fc.oneof(hostile, anything), { maxLength: 6 }), async (sent) => {
        const title = `still taken ${uuidv7()}`;
        const good = { id: uuidv7(), stamp: clock.next(), type: 'choose', itemId, set: { title } };
        const mutations = JSON.parse(JSON.stringify([...sent, good])) as unknown[];
        const { results } = await takePush(library, { mutations }, tools);
        expect(results).toHaveLength(mutations.length);
        expect(results.at(-1)).toMatchObject({ outcome: 'applied', mutationId: good.id });
        expect((await library.item(itemId))?.choices.title.value).toBe(title);
        await pulled();
      }),
      { numRuns: 60 },
    );
  });
});
