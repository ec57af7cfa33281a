import { buffer } from 'node:stream/consumers';
import { readBookmarks, readOpml } from '@dorvel/core/formats';
import type { Item } from '@dorvel/core/model';
import { REGISTRY } from '@dorvel/core/records';
import { strFromU8, unzipSync } from 'fflate';
import { tricked, TRICKS } from '../publish/handed-on.test-data';
import { archiveFiles } from './out';
import { packed } from './pack';

let at: Awaited<ReturnType<typeof tricked>>;
beforeAll(async () => {
  at = await tricked();
});
afterAll(() => at.close());

const NOW = Date.UTC(2026, 10, 28, 9);
const archiveNow = () => {
  const { database, library, files, accountId } = at;
  const account = { id: accountId, mail: 'a@example.org', name: 'A' };
  return packed(archiveFiles(account, { database, library, files, now: NOW }), NOW);
};
const whole = async () => new Uint8Array(await buffer(archiveNow()));
const linesOf = (bytes: Uint8Array | undefined): unknown[] =>
  strFromU8(bytes ?? new Uint8Array())
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as unknown);

it('has every record that a device would get, as it is, and every text and picture', async () => {
  const files = unzipSync(await whole());
  const { records } = await at.library.changesAfter(0);
  for (const { plural, schema } of REGISTRY.kinds) {
    const lines = linesOf(files[`records/${plural}.jsonl`]) as { id: string }[];
    const sorted = [...(records[plural] ?? [])].sort((a, b) => (a.id < b.id ? -1 : 1));
    expect([plural, lines]).toEqual([plural, sorted]);
    for (const line of lines) expect(schema.safeParse(line).success).toBe(true);
  }
  expect(linesOf(files['copies.jsonl'])).toHaveLength(TRICKS.length);
  expect(Object.keys(files).filter((name) => name.startsWith('pictures/'))).toEqual([`pictures/${at.hash}.webp`]);
});

it('can be read without Dorvel: texts lead to pictures that are there, lists are what programs take', async () => {
  const files = unzipSync(await whole());
  const names = Object.keys(files);
  const texts = names.filter((name) => name.startsWith('texts/'));
  expect(texts).toHaveLength(2 * TRICKS.length);
  // As files may be called anywhere.
  for (const name of texts) expect(name).toMatch(/^texts\/[\p{L}\p{N}-]+\.(?:md|html)$/u);
  const markdown = strFromU8(files[texts.find((name) => name.endsWith('.md')) ?? ''] ?? new Uint8Array());
  expect(markdown).toMatch(/^---\ntitle: "/);
  expect(markdown).toContain(`](../pictures/${at.hash}.webp)`);
  const page = strFromU8(files[texts.find((name) => name.endsWith('.html')) ?? ''] ?? new Uint8Array());
  expect(page).toContain(`src="../pictures/${at.hash}.webp"`);
  expect(page).not.toContain('<script');
  const bookmarks = readBookmarks(strFromU8(files['lists/bookmarks.html'] ?? new Uint8Array()));
  const items = linesOf(files['records/items.jsonl']) as Item[];
  expect(bookmarks.map(({ address }) => address)).toEqual(items.map(({ address }) => address));
  expect(bookmarks.map(({ savedAt }) => savedAt)).toEqual(
    items.map(({ savedAt }) => Math.floor(savedAt / 1000) * 1000),
  );
  expect(readOpml(strFromU8(files['lists/feeds.opml'] ?? new Uint8Array()))).toEqual([]);
  const annotations = JSON.parse(strFromU8(files['lists/highlights.jsonld'] ?? new Uint8Array())) as {
    items: unknown[];
  };
  expect(annotations.items).toHaveLength(1);
  expect(strFromU8(files['README.md'] ?? new Uint8Array())).toContain('copies.jsonl');
});

it('is the same byte for byte when nothing has changed', async () => {
  expect(Buffer.compare(Buffer.from(await whole()), Buffer.from(await whole()))).toBe(0);
});

it('ends when nobody waits for it any more', async () => {
  const archive = archiveNow();
  for await (const part of archive) {
    expect((part as Uint8Array).length).toBeGreaterThan(0);
    break;
  }
  expect(archive.destroyed).toBe(true);
});
