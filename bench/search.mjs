// npm run bench:search: known items found again among a dictionary's entries (FOLDOC), and time and room at three sizes;
// side by side with minisearch and with SQLite's FTS5 as they come.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient } from '@libsql/client';
import MiniSearch from 'minisearch';
import { newItem } from '../core/src/records/index.ts';
import { createSearchIndex, fieldTerms, find, readQuery } from '../core/src/search/index.ts';
import { accountRepository } from '../server/src/accounts/accounts.ts';
import { openDatabase } from '../server/src/db/open.ts';
import { findableLibrary } from '../server/src/library/findable.ts';
import { libraryOf } from '../server/src/library/library.ts';
import { readEntries } from './foldoc.mjs';

const NOW = Date.UTC(2026, 0, 1);
const out = [];
const say = (line) => {
  console.log(line);
  out.push(line);
};
let databases = 0;
const folder = mkdtempSync(path.join(tmpdir(), 'dorvel-bench-'));
const entries = readEntries().map(({ id, title, body }) => ({
  id: String(id),
  title,
  body: body.replace(/[{}]/g, '').trim(),
}));

const factsOf = (items) =>
  new Map(
    items.map(({ id }) => [
      id,
      {
        id,
        stage: 'kept',
        savedAt: NOW,
        minutes: 5,
        furthest: 0,
        isFinished: false,
        language: 'en',
        site: '',
        authors: '',
        tags: [],
        noted: false,
        verdict: 'whole',
        gone: false,
      },
    ]),
  );

const idsOf = ({ hits, also }) => [...hits, ...also].map(({ id }) => id);

function ours(items) {
  const index = createSearchIndex();
  for (const { id, title, body } of items)
    index.put(id, fieldTerms({ title, source: '', tags: '', note: '', language: 'en' }, body));
  const facts = factsOf(items);
  return {
    search: async (words, typing = false) =>
      idsOf(await find(readQuery(words, { now: NOW, zoneMinutes: 0, typing }), 'all', index, facts, NOW)),
  };
}

/** The server's own way, from the change that stores an item to the answer. */
async function server(items) {
  const database = await openDatabase(
    `file:${path.join(folder, `${(databases += 1)}.db`)}`,
    path.join(import.meta.dirname, '../server/src/db/migrations'),
  );
  const account = await accountRepository(database, () => NOW).create('bench@x.example', 'B', 'long enough words');
  const library = libraryOf(database, account.id);
  const NEVER = '000000000-0000-0';
  for (let at = 0; at < items.length; at += 200)
    await library.change(async (write) => {
      for (const { title, body } of items.slice(at, at + 200)) {
        const [itemId, copyId] = [crypto.randomUUID(), crypto.randomUUID()];
        const address = `https://x.example/${itemId}`;
        const item = newItem({ type: 'save', id: itemId, itemId, address, savedAt: NOW, stamp: NEVER });
        item.capture.page = {
          title,
          authors: [],
          siteName: null,
          publishedAt: null,
          modifiedAt: null,
          licenceUrl: null,
          facts: [],
          language: 'en',
          excerpt: null,
          wordCount: 1000,
          minutes: 4,
          pictureCount: 0,
          thumbnail: null,
          copyId,
          cameThrough: { verdict: 'whole', signs: [] },
        };
        const text = { type: 'text', value: body };
        const tree = {
          type: 'root',
          children: [{ type: 'element', tagName: 'p', properties: {}, children: [text] }],
        };
        await write.putCopy({ id: copyId, itemId, madeAt: NOW, title, language: 'en', hash: null, tree });
        await write.put(item);
      }
    });
  const findable = findableLibrary(database, account.id);
  return {
    async search(words) {
      const query = readQuery(words, { now: NOW, zoneMinutes: 0 });
      return idsOf(await find(query, 'all', findable.source, await findable.facts(), NOW));
    },
    close: () => database.close(),
  };
}

function miniSearch(items) {
  const index = new MiniSearch({ fields: ['title', 'body'] });
  index.addAll(items);
  return { search: async (words) => index.search(words).map(({ id }) => id) };
}

async function fts(items, join) {
  const client = createClient({ url: `file:${path.join(folder, `${(databases += 1)}.db`)}` });
  await client.execute('create virtual table plain using fts5(id unindexed, title, body)');
  for (let at = 0; at < items.length; at += 500)
    await client.batch(
      items.slice(at, at + 500).map(({ id, title, body }) => ({
        sql: 'insert into plain values (?, ?, ?)',
        args: [id, title, body],
      })),
    );
  return {
    async search(words) {
      const terms = words.match(/[\p{L}\p{N}]+/gu) ?? [];
      if (terms.length === 0) return [];
      const { rows } = await client.execute({
        sql: 'select id from plain where plain match ? order by rank limit 50',
        args: [terms.map((term) => `"${term}"`).join(join)],
      });
      return rows.map((row) => row[0]);
    },
    close: () => client.close(),
  };
}

/** Each entry asked for by words that were taken out of it. */
async function quality(name, asked, engine) {
  let [reciprocal, first, five] = [0, 0, 0];
  for (const { id, query } of asked) {
    const at = (await engine.search(query)).slice(0, 50).indexOf(id);
    if (at !== -1) reciprocal += 1 / (at + 1);
    if (at === 0) first += 1;
    if (at !== -1 && at < 5) five += 1;
  }
  const share = (n) => (n / asked.length).toFixed(3);
  say(`  ${name.padEnd(26)} MRR ${share(reciprocal)}   first ${share(first)}   among five ${share(five)}`);
}

async function known(title, items, asked) {
  say(`${title}: ${asked.length} of ${items.length} entries asked for`);
  await quality('Dorvel', asked, ours(items));
  await quality('minisearch', asked, miniSearch(items));
  for (const [name, join] of [
    ['FTS5, all words', ' AND '],
    ['FTS5, any word', ' OR '],
  ]) {
    const engine = await fts(items, join);
    await quality(name, asked, engine);
    engine.close();
  }
}

const sentence = (body) => /^[\s\S]*?[.!?](?=\s)/.exec(body.replace(/^\s*<[^>]*>\s*/, ''))?.[0].trim() ?? '';
const byHead = entries.filter(({ title, body }) => title.length > 2 && body.length > 200);
const nth = (list, n) => list.filter((_, at) => at % n === 0);
await known(
  'By the headword',
  entries.map(({ id, title, body }) => ({ id, title: '', body: body.replaceAll(title, ' ') })),
  nth(byHead, 20).map(({ id, title }) => ({ id, query: title.replace(/[":*-]/g, ' ') })),
);
const described = nth(
  byHead.filter(({ body }) => {
    const length = sentence(body).length;
    return length > 30 && length < 200 && body.length > 2.5 * length;
  }),
  20,
);
const inAsked = new Map(described.map((entry) => [entry.id, sentence(entry.body)]));
await known(
  'By the first sentence',
  entries.map((entry) => ({
    ...entry,
    body: inAsked.has(entry.id) ? entry.body.replace(inAsked.get(entry.id), ' ') : entry.body,
  })),
  described.map(({ id }) => ({ id, query: inAsked.get(id).replace(/[":*-]/g, ' ') })),
);

/** Articles of about 1,000 words, made of entries one after the other; from other places each time round. */
function articles(count) {
  let at = 0;
  return Array.from({ length: count }, (_, n) => {
    let body = '';
    const title = entries[(n * 7) % entries.length].title;
    while (body.length < 6000) body += `${entries[(at += 1 + Math.floor(n / 3000)) % entries.length].body}\n\n`;
    return { id: `item-${n}`, title, body };
  });
}

const QUERIES = nth(byHead, Math.floor(byHead.length / 200)).map(({ title }) => title.replace(/[":*-]/g, ' '));
const rss = () => {
  globalThis.gc?.();
  return process.memoryUsage().heapUsed / 1e6 + process.memoryUsage().arrayBuffers / 1e6;
};

async function speed(name, make, items) {
  const before = rss();
  const start = performance.now();
  const engine = await make(items);
  const built = (performance.now() - start) / 1000;
  const room = rss() - before;
  for (const query of QUERIES.slice(0, 40)) await engine.search(query);
  const times = [];
  for (const query of QUERIES) {
    const from = performance.now();
    await engine.search(query);
    times.push(performance.now() - from);
  }
  times.sort((a, b) => a - b);
  const part = (share) => times[Math.floor(times.length * share)].toFixed(1).padStart(6);
  say(
    `  ${name.padEnd(26)} built in ${built.toFixed(1).padStart(5)} s   ${room.toFixed(0).padStart(5)} MB   p50 ${part(0.5)} ms   p95 ${part(0.95)} ms`,
  );
  engine.close?.();
}

/** At 50,000 the four take most of an hour: BENCH_ENGINES chooses some of them by a part of their names. */
const ENGINES = [
  ['Dorvel, on the device', ours],
  ['Dorvel, on the server', server],
  ['minisearch', miniSearch],
  ['FTS5, all words', (all) => fts(all, ' AND ')],
].filter(([name]) => (process.env.BENCH_ENGINES ?? '').split(',').some((part) => name.includes(part)));

for (const count of (process.env.BENCH_SIZES ?? '1000,10000,50000').split(',').map(Number)) {
  const items = articles(count);
  say(`${count} articles, ${(items.reduce((sum, { body }) => sum + body.length, 0) / 1e6).toFixed(0)} MB`);
  for (const [name, make] of ENGINES) await speed(name, make, items);
}
rmSync(folder, { recursive: true });
if (process.argv.includes('--write')) {
  const target = path.join(import.meta.dirname, '../docs/bench/search.md');
  const head = `# Finding, side by side

\`npm run bench:search -- --write\`, ${new Date().toISOString().slice(0, 10)}, Node ${process.versions.node}, minisearch 7.2.0, SQLite's FTS5 as they come.

Known items: entries of a computing dictionary (FOLDOC) asked for by words that were taken out of them. Speed: articles of about 1,000 words made of its entries, 200 queries by headwords; the room is that of Node's heap and buffers, without what SQLite has in its file.
`;
  writeFileSync(target, `${head}\n\`\`\`\n${out.join('\n')}\n\`\`\`\n`);
}
