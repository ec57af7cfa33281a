import { pino } from 'pino';
import { startRunner } from './runner';

const log = pino({ level: 'silent' });
const settle = async () => {
  for (let n = 0; n < 20; n++) await Promise.resolve();
};

/** A row of jobs, each due at an instant; what is taken is taken once. */
function row(...jobs: { id: string; at: number }[]) {
  const waiting = [...jobs];
  const held: string[][] = [];
  return {
    add: (job: { id: string; at: number }) => void waiting.push(job),
    held,
    take(limit: number) {
      const due = waiting.filter(({ at }) => at <= Date.now()).slice(0, Math.max(0, limit));
      for (const each of due) waiting.splice(waiting.indexOf(each), 1);
      return Promise.resolve(due);
    },
    nextDue: () => Promise.resolve(waiting.length === 0 ? null : Math.min(...waiting.map(({ at }) => at))),
    hold(ids: readonly string[]) {
      held.push([...ids]);
      return Promise.resolve();
    },
  };
}

beforeEach(() => void jest.useFakeTimers({ now: 1000, doNotFake: ['nextTick', 'queueMicrotask'] }));
afterEach(() => void jest.useRealTimers());

it('does so many at once and no more, in the order in which they are due', async () => {
  const jobs = row({ id: 'a', at: 0 }, { id: 'b', at: 0 }, { id: 'c', at: 0 });
  const begun: string[] = [];
  const ends = new Map<string, () => void>();
  const run = ({ id }: { id: string }) => {
    begun.push(id);
    return new Promise<void>((resolve) => void ends.set(id, resolve));
  };
  const runner = startRunner(jobs, 2, run, () => Promise.resolve(), log);
  await settle();
  expect(begun).toEqual(['a', 'b']);
  ends.get('b')!();
  await settle();
  expect(begun).toEqual(['a', 'b', 'c']);
  for (const end of ends.values()) end();
  await runner.stop();
});

it('sleeps until the next one is due, and wakes for one that comes meanwhile', async () => {
  const jobs = row({ id: 'later', at: 31_000 });
  const begun: string[] = [];
  const run = ({ id }: { id: string }) => Promise.resolve(void begun.push(id));
  const runner = startRunner(jobs, 2, run, () => Promise.resolve(), log);
  await settle();
  expect(begun).toEqual([]);
  jobs.add({ id: 'now', at: 0 });
  runner.wake();
  await settle();
  expect(begun).toEqual(['now']);
  await jest.advanceTimersByTimeAsync(30_100);
  expect(begun).toEqual(['now', 'later']);
  await runner.stop();
});

it('puts a job back that failed in a way nobody foresaw, and goes on with the others', async () => {
  const jobs = row({ id: 'bad', at: 0 }, { id: 'good', at: 0 });
  const [failed, done]: [string[], string[]] = [[], []];
  const run = ({ id }: { id: string }) =>
    id === 'bad' ? Promise.reject(new Error('as it must')) : Promise.resolve(void done.push(id));
  const putBack = ({ id }: { id: string }) => {
    failed.push(id);
    // Not even this works: the disk is full.
    return Promise.reject(new Error('no room'));
  };
  const runner = startRunner(jobs, 1, run, putBack, log);
  await jest.advanceTimersByTimeAsync(100);
  expect([failed, done]).toEqual([['bad'], ['good']]);
  await runner.stop();
});

it('says that jobs are still being run, so that nobody else takes them', async () => {
  const jobs = row({ id: 'long', at: 0 });
  let end = () => {};
  const run = () => new Promise<void>((resolve) => (end = resolve));
  const runner = startRunner(jobs, 1, run, () => Promise.resolve(), log);
  await jest.advanceTimersByTimeAsync(61_000);
  expect(jobs.held).toEqual(Array(4).fill(['long']));
  end();
  await jest.advanceTimersByTimeAsync(61_000);
  expect(jobs.held).toHaveLength(4);
  await runner.stop();
});

it('begins nothing once it is stopped, and waits for what is under way', async () => {
  const jobs = row({ id: 'a', at: 0 });
  let end = () => {};
  const begun: string[] = [];
  const run = ({ id }: { id: string }) => {
    begun.push(id);
    return new Promise<void>((resolve) => (end = resolve));
  };
  const runner = startRunner(jobs, 1, run, () => Promise.resolve(), log);
  await settle();
  let isStopped = false;
  const stopping = runner.stop().then(() => (isStopped = true));
  jobs.add({ id: 'b', at: 0 });
  runner.wake();
  await settle();
  expect([begun, isStopped]).toEqual([['a'], false]);
  end();
  await stopping;
  await jest.advanceTimersByTimeAsync(120_000);
  expect(begun).toEqual(['a']);
});
