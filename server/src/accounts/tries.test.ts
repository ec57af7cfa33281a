import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openDatabase } from '../db/open';
import { triesIn } from './tries';

const MIGRATIONS = path.join(__dirname, '../db/migrations');
const WINDOW_MS = 900_000;
let folder: string;
let now = 1_000_000;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));
const failed = jest.fn();
const open = () => openDatabase(`file:${path.join(folder, 'test.db')}`, MIGRATIONS);

it('counts what comes to nothing, each kind and each one who tries for itself, also over a restart', async () => {
  const first = await open();
  const enter = triesIn(first, () => now, failed)('enter', WINDOW_MS);
  const count = async (store: typeof enter, whose: string) => (await store.increment(whose)).totalHits;
  expect([await count(enter, 'a'), await count(enter, 'a'), await count(enter, 'b')]).toEqual([1, 2, 1]);
  expect(await count(triesIn(first, () => now, failed)('code', WINDOW_MS), 'a')).toBe(1);
  // What comes to something is taken off again.
  await enter.decrement('a');
  first.close();

  const second = await open();
  const again = triesIn(second, () => now, failed)('enter', WINDOW_MS);
  expect(await again.increment('a')).toEqual({ totalHits: 2, resetTime: new Date(1_000_000 + WINDOW_MS) });
  // From the first try on, and not from the last.
  now += WINDOW_MS + 1;
  expect(await count(again, 'a')).toBe(1);
  await again.resetKey('a');
  expect(await count(again, 'a')).toBe(1);
  second.close();
  // After the answer nobody hears of it, and the server goes on.
  await expect(again.decrement('a')).resolves.toBeUndefined();
  expect(failed).toHaveBeenCalledTimes(1);
});
