import { setTimeout as sleep } from 'node:timers/promises';
import type { Item } from '@dorvel/core/model';
import { changeMaker } from '@dorvel/core/records';
import { createClock } from '@dorvel/core/sync';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { items } from '../db/schema';
import { ChangeBell } from './bell';
import { eachItemChanged } from './changed-items';
import { hearElsewhere } from './elsewhere';
import { takePush } from './take-mutations';
import { openTestLibrary } from './test-library.test-data';

const clock = createClock('test', Date.now);
const make = changeMaker({ clock, newId: uuidv7, now: Date.now });
let house: Awaited<ReturnType<typeof openTestLibrary>>;
beforeEach(async () => {
  house = await openTestLibrary();
});
afterEach(() => house.close());
const push = (n: number, now = Date.now) =>
  takePush(
    house.library,
    { mutations: Array.from({ length: n }, () => make.save({ address: `https://x.example/${uuidv7()}` })) },
    { clock, now },
  );

it('what another process changed is rung for here, where somebody listens', async () => {
  const bell = new ChangeBell();
  let heard = 0;
  const silence = bell.listen(house.accountId, () => heard++);
  const stop = hearElsewhere({ ...house.database, isShared: true }, bell, pino({ level: 'silent' }));
  await sleep(1000);
  expect(heard).toBe(0);
  await push(1);
  await sleep(1000);
  expect(heard).toBe(1);
  silence();
  stop();
});

it('a long push goes in as several changes, and all of it', async () => {
  // Each look at the clock is half a second later.
  let now = Date.now();
  const { results, cursor } = await push(10, () => (now += 500));
  expect(results.map(({ outcome }) => outcome)).toEqual(Array(10).fill('applied'));
  const sequences = await house.database.read.select({ sequence: items.sequence }).from(items);
  const changes = new Set(sequences.map((row) => row.sequence));
  expect(changes.size).toBeGreaterThan(2);
  expect(Math.max(...changes)).toBe(cursor);
  expect((await push(0)).results).toEqual([]);
});

it('goes through all that changed, once each, also when it is more than a page; and what changes meanwhile comes the next time', async () => {
  await push(1);
  const [row] = await house.database.read.select().from(items);
  const many = Array.from({ length: 1203 }, (_, n) => {
    const id = uuidv7();
    return { ...row!, id, addressKey: `https://x.example/${n}`, record: { ...(row!.record as Item), id } };
  });
  await house.database.write(async (tx) => {
    for (let at = 0; at < many.length; at += 200) await tx.insert(items).values(many.slice(at, at + 200));
  });
  const seen: string[] = [];
  let later: Promise<unknown> | null = null;
  const until = await eachItemChanged(house.database, house.accountId, 0, async ({ id }) => {
    seen.push(id);
    later ??= push(1);
    await later;
  });
  expect([seen.length, new Set(seen).size]).toEqual([1204, 1204]);
  const next: string[] = [];
  await eachItemChanged(house.database, house.accountId, until, ({ id }) => void next.push(id));
  expect(next).toHaveLength(1);
  expect(seen).not.toContain(next[0]);
});

it('a change from a clock that is days ahead, sent again as its answer was lost, does not win over what came after it', async () => {
  const { itemId, ...save } = make.save({ address: 'https://x.example/ahead' });
  const tools = { clock, now: Date.now };
  const send = async (...mutations: object[]) => (await takePush(house.library, { mutations }, tools)).results[0];
  await send({ ...save, itemId });
  const ahead = createClock('ahead', () => Date.now() + 3 * 86_400_000);
  const first = { type: 'choose', id: uuidv7(), itemId, stamp: ahead.next(), set: { title: 'First' } };
  const answer = await send(first);
  expect(answer).toMatchObject({ outcome: 'applied', stamp: expect.stringMatching(/-ahead$/) });
  await send({ type: 'choose', id: uuidv7(), itemId, stamp: clock.next(), set: { title: 'Second' } });
  expect(await send(first)).toEqual(answer);
  // By then its own stamp is one that could be.
  const later = { clock, now: () => Date.now() + 4 * 86_400_000 };
  expect((await takePush(house.library, { mutations: [first] }, later)).results[0]).toEqual(answer);
  expect((await house.library.item(itemId))?.choices.title.value).toBe('Second');
});
