import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Letter } from '@dorvel/core/formats';
import { NEVER } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { pageFrom } from '@dorvel/core/testing';
import { v7 as uuidv7 } from 'uuid';
import { accountRepository } from '../accounts/accounts';
import { type Database, openDatabase } from '../db/open';
import { libraryOf } from '../library/library';
import { cameBack } from './come-back';
import { reminderShelf } from './reminders';

const HOUR = 60 * 60 * 1000;
const DAY = 24 * HOUR;
/** 05:30 in London, 14:30 in Tokyo. */
const START = Date.UTC(2026, 10, 28, 5, 30);
const LONDON = { zone: 'Europe/London', origin: 'https://library.example' };

let folder: string;
let database: Database;
let now: number;
let sent: { to: string; letter: Letter }[];
let fails: boolean;

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dorvel-test-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`, path.join(__dirname, '../db/migrations'));
});
afterAll(() => {
  database.close();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(() => {
  now = START;
  sent = [];
  fails = false;
});

/** A reader with some items in the Queue, saved long ago. */
async function reader(items: number) {
  const mail = `${uuidv7()}@x.example`;
  const account = await accountRepository(database, () => now).create(mail, 'A', 'long enough words');
  if (!account) throw new Error('not made');
  const library = libraryOf(database, account.id);
  const clock = createClock('server', () => now);
  const savedAt = START - 60 * DAY;
  await library.change(async (write) => {
    for (let n = 0; n < items; n++) {
      const id = uuidv7();
      const item = newItem({
        ...{ type: 'save', id: uuidv7(), itemId: id, address: `https://x.example/${id}`, savedAt, stamp: NEVER },
      });
      item.capture.page = pageFrom({ title: `Item ${n}`, wordCount: 900, minutes: 4, copyId: uuidv7() });
      item.choices.stage = { value: 'queue', at: NEVER };
      await write.put(item);
    }
  });
  const related = { closeness: () => Promise.resolve([]) } as never;
  const shelf = reminderShelf(database, {
    send(to, letter) {
      if (fails) return Promise.reject(new Error('450 not now'));
      sent.push({ to, letter });
      return Promise.resolve();
    },
    readerOf: (_accountId, at) => ({ library, related, tools: { clock, now: () => now }, ...at }),
    now: () => now,
  });
  /** What a runner does when it looks. */
  const look = async () => {
    for (const job of (await shelf.take(50)).filter(({ accountId }) => accountId === account.id))
      await shelf.sendLetter(job).catch(() => shelf.putBack(job));
  };
  return { account, mail, library, shelf, look };
}

const titles = ({ letter }: { letter: Letter }) => [...letter.text.matchAll(/Item \d+/g)].map(([title]) => title);

describe('the daily letter', () => {
  it('comes when its hour has come in the reader’s own zone, and once a day', async () => {
    const { account, mail, shelf, look } = await reader(9);
    await shelf.setLetter(account.id, LONDON, 7);
    await look();
    expect(sent).toEqual([]);
    now = START + 2 * HOUR;
    await look();
    await look();
    expect(sent.map(({ to }) => to)).toEqual([mail]);
    now += DAY;
    await look();
    expect(sent).toHaveLength(2);
    await shelf.setLetter(account.id, LONDON, null);
    now += DAY;
    await look();
    expect(sent).toHaveLength(2);
  });

  it('is taken once by two who look at the same time', async () => {
    const { account, shelf } = await reader(3);
    await shelf.setLetter(account.id, LONDON, 6);
    now = START + HOUR;
    const taken = (await Promise.all([shelf.take(50), shelf.take(50)])).flat();
    expect(taken.filter(({ accountId }) => accountId === account.id)).toHaveLength(1);
  });

  it('asked for after its hour comes on the next day', async () => {
    const { account, shelf, look } = await reader(3);
    await shelf.setLetter(account.id, { ...LONDON, zone: 'Asia/Tokyo' }, 7);
    await look();
    expect(sent).toEqual([]);
    // 07:00 in Tokyo.
    now = Date.UTC(2026, 10, 28, 22, 1);
    await look();
    expect(sent).toHaveLength(1);
  });

  it('brings others on the next day, since what was shown in it counts as shown', async () => {
    const { account, shelf, look, library } = await reader(9);
    await shelf.setLetter(account.id, LONDON, 6);
    now = START + HOUR;
    await look();
    now += DAY;
    await look();
    const [first, second] = sent.map(titles);
    expect(first).toHaveLength(3);
    expect(second).toHaveLength(3);
    expect(first!.filter((title) => second!.includes(title))).toEqual([]);
    const changed = await library.changedLast(9);
    expect(changed.filter(({ choices }) => choices.shown.value.times === 1)).toHaveLength(6);
  });

  it('that the mail server does not take is tried again after a while, with the same in it', async () => {
    const { account, shelf, look } = await reader(9);
    await shelf.setLetter(account.id, LONDON, 6);
    now = START + HOUR;
    fails = true;
    await look();
    expect((await shelf.of(account.id))?.retryAt).toBeGreaterThan(now);
    fails = false;
    await look();
    expect(sent).toEqual([]);
    now += 20 * 60 * 1000;
    await look();
    expect(sent.map(titles)).toEqual([expect.arrayContaining([expect.any(String)])]);
    expect((await shelf.of(account.id))?.retryAt).toBeNull();
  });

  it('is not sent when nothing waits', async () => {
    const { account, shelf, look } = await reader(0);
    await shelf.setLetter(account.id, LONDON, 6);
    now = START + HOUR;
    await look();
    expect(sent).toEqual([]);
  });
});

describe('the feed', () => {
  it('is found by its secret alone, which ends with another one', async () => {
    const { account, shelf } = await reader(4);
    await shelf.makeFeed(account.id, LONDON);
    const first = (await shelf.of(account.id))?.secret ?? '';
    expect(first).toMatch(/^[\w-]{32}$/);
    expect(await shelf.at(first)).not.toBeNull();
    await shelf.makeFeed(account.id, LONDON);
    expect(await shelf.at(first)).toBeNull();
    const second = (await shelf.of(account.id))?.secret ?? '';
    await shelf.endFeed(account.id);
    expect(await shelf.at(second)).toBeNull();
  });

  it('tells what came back on each of the last days, the latest first, and why', async () => {
    const { account, shelf } = await reader(9);
    await shelf.makeFeed(account.id, LONDON);
    const fetchOn = async (instant: number) => {
      now = instant;
      return cameBack(database, (await shelf.at((await shelf.of(account.id))?.secret ?? ''))!);
    };
    expect((await fetchOn(START)).map(({ day }) => day)).toEqual(Array(3).fill('2026-11-28'));
    const later = await fetchOn(START + DAY);
    expect(later.map(({ day }) => day)).toEqual([...Array(3).fill('2026-11-29'), ...Array(3).fill('2026-11-28')]);
    expect(later[0]?.reason).toContain('saved');
    expect(later[5]?.reason).toBe('came back on Saturday, 28 November');
    expect(later.every(({ at }) => at <= now)).toBe(true);
    // Fetched again it is the same: no item is used up by looking.
    expect(await fetchOn(START + DAY + HOUR)).toEqual(later.map((entry) => ({ ...entry, at: expect.any(Number) })));
    expect(await fetchOn(START + 40 * DAY)).toHaveLength(3);
  });
});
