import { openTestLibrary } from '../library/test-library.test-data';
import { leaderOf, onlyLed } from './leader';
import { jobRepository } from './queue';

let now = 1_000_000;
let house: Awaited<ReturnType<typeof openTestLibrary>>;
beforeEach(async () => {
  house = await openTestLibrary(() => now);
});
afterEach(() => house.close());
/** The same database, as two processes have it that share it. */
const shared = () => ({ ...house.database, isShared: true });
const leader = (name: string) => leaderOf(shared(), name, () => now);

describe('of several processes', () => {
  it('one leads, for as long as it says so', async () => {
    const [a, b] = [leader('a'), leader('b')];
    expect([await a.leads(), await b.leads()]).toEqual([true, false]);
    for (let n = 0; n < 10; n++) {
      now += 6000;
      expect([await b.leads(), await a.leads()]).toEqual([false, true]);
    }
    // It says nothing any more.
    now += 14_000;
    expect(await b.leads()).toBe(false);
    now += 6000;
    expect(await b.leads()).toBe(true);
    expect(await a.leads()).toBe(false);
  });

  it('another leads at once when one steps down, and only who leads can', async () => {
    const [a, b, c] = [leader('a'), leader('b'), leader('c')];
    await a.leads();
    await c.stepDown();
    expect(await b.leads()).toBe(false);
    await a.stepDown();
    now += 5000;
    expect(await b.leads()).toBe(true);
  });

  it('of many that begin together, one', async () => {
    const all = await Promise.all(Array.from({ length: 8 }, (_, n) => leader(`p${n}`).leads()));
    expect(all.filter(Boolean)).toHaveLength(1);
  });

  it('who leads takes from the row, and makes order in it first', async () => {
    const begun: string[] = [];
    const row = { take: async () => [{ id: '1' }], nextDue: async () => 5 };
    const led = (name: string) =>
      onlyLed(
        row,
        leader(name),
        () => now,
        async () => void begun.push(name),
      );
    const [a, b] = [led('a'), led('b')];
    expect([await a.take(1), await a.take(1), await b.take(1)]).toEqual([[{ id: '1' }], [{ id: '1' }], []]);
    expect(begun).toEqual(['a']);
    expect([await a.nextDue(), await b.nextDue()]).toEqual([5, now + 5000]);
    now += 20_000;
    expect([await b.take(1), await a.take(1)]).toEqual([[{ id: '1' }], []]);
    expect(begun).toEqual(['a', 'b']);
  });

  it('each runs its own captures; those of one that ended are taken up when its lease has run out', async () => {
    const queue = (name: string) => jobRepository(shared(), () => now, name);
    await house.library.change(async (write) => {
      for (const itemId of ['1', '2', '3']) await write.enqueueCapture(itemId, now);
    });
    const [a, b] = [queue('a'), queue('b')];
    const [one] = await a.lane('quick').take(1);
    const [two] = await b.lane('quick').take(1);
    // A third that starts takes nothing from those that run.
    expect(await queue('c').recover()).toBe(0);
    const [three] = await queue('c').lane('quick').take(5);
    expect(new Set([one?.id, two?.id, three?.id]).size).toBe(3);
    expect(await b.lane('quick').take(5)).toEqual([]);

    // The first and the second say that they go on; only the first in truth. The third ends in good order.
    await queue('c').release();
    now += 50_000;
    for (const ids of [[one!.id]]) {
      await a.lane('quick').hold(ids);
      await b.lane('quick').hold(ids);
    }
    now += 20_000;
    const taken = await queue('d').lane('quick').take(5);
    expect(new Map(taken.map((job) => [job.id, [job.attempts, job.crashes]]))).toEqual(
      new Map([
        [two?.id, [2, 1]],
        [three?.id, [2, 0]],
      ]),
    );
  });
});

it('who has a database for itself leads, and asks nobody', async () => {
  const alone = leaderOf(house.database, 'server', () => now);
  const other = leaderOf(house.database, 'other', () => now);
  expect([await alone.leads(), await other.leads()]).toEqual([true, true]);
});
