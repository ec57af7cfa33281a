/** @jest-environment node */
import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { MAX_RETRY_MS, REGULAR_MS, SOON_MS, type Surroundings, syncRounds, type SyncStatus } from './rounds';

/** A loop in a world where nothing takes time but what says so, and the timers that it has set. */
function loop(changes: Partial<Surroundings<string>> = {}) {
  const calls: string[] = [];
  const timers: { ms: number; call: () => void }[] = [];
  let status: SyncStatus = { online: true, doing: 'nothing', problem: null, settled: false };
  const rounds = syncRounds<string>({
    library: () => 'hers',
    isOnline: () => true,
    send: () => Promise.resolve(void calls.push('send')),
    receive: () => Promise.resolve(void calls.push('receive')).then(() => false),
    download: () => Promise.resolve(void calls.push('download')),
    sessionLost: () => void calls.push('session lost'),
    tell: (told) => (status = { ...status, ...told }),
    after(ms, call) {
      const timer = { ms, call };
      timers.push(timer);
      return () => {
        if (timers.includes(timer)) timers.splice(timers.indexOf(timer), 1);
      };
    },
    ...changes,
  });
  /** Lets the one timer that is set ring. @returns after how long it would have */
  const ring = async () => {
    expect(timers).toHaveLength(1);
    const [{ ms, call }] = timers.splice(0) as [{ ms: number; call: () => void }];
    call();
    for (let n = 0; n < 20; n++) await Promise.resolve();
    return ms;
  };
  rounds.start();
  timers.splice(0);
  return { rounds, calls, timers, ring, status: () => status };
}
const failing = (error: Error) => ({ send: () => Promise.reject(error) });

it('sends first, then fetches, then brings texts ahead; and again after a minute', async () => {
  const { rounds, calls, ring, timers, status } = loop();
  rounds.soon();
  rounds.soon();
  expect(await ring()).toBe(SOON_MS);
  expect(calls).toEqual(['send', 'receive', 'download']);
  expect(status()).toEqual({ online: true, doing: 'nothing', problem: null, settled: true });
  expect(timers.map(({ ms }) => ms)).toEqual([REGULAR_MS]);
});

it('has a change not wait for texts that are being brought ahead', async () => {
  let goOn = () => true;
  let end = () => {};
  const { rounds, ring, timers } = loop({
    download: (_library, mayGoOn) => {
      goOn = mayGoOn;
      return new Promise((resolve) => (end = resolve));
    },
  });
  rounds.soon();
  await ring();
  expect(goOn()).toBe(true);
  rounds.soon();
  expect(goOn()).toBe(false);
  expect(timers).toEqual([]);
  end();
  for (let n = 0; n < 20; n++) await Promise.resolve();
  expect(timers.map(({ ms }) => ms)).toEqual([SOON_MS]);
});

it('sends at once what is to be sent because of what was fetched', async () => {
  const { rounds, ring, timers } = loop({ receive: () => Promise.resolve(true) });
  rounds.soon(0);
  await ring();
  expect(timers.map(({ ms }) => ms)).toEqual([SOON_MS]);
});

it('waits longer after each failure, up to a minute, and begins anew once it has worked', async () => {
  let works = false;
  const { rounds, ring } = loop({
    send: () => (works ? Promise.resolve() : Promise.reject(new Unreachable('No connection.'))),
  });
  rounds.soon(0);
  const waits: number[] = [];
  for (let n = 0; n < 8; n++) waits.push(await ring());
  expect(waits).toEqual([0, 2000, 4000, 8000, 16_000, 32_000, MAX_RETRY_MS, MAX_RETRY_MS]);
  works = true;
  await ring();
  works = false;
  expect(await ring()).toBe(REGULAR_MS);
  expect(await ring()).toBe(2000);
  rounds.forgetFailures();
  await ring();
  expect(await ring()).toBe(2000);
});

it.each<[string, Error, Partial<SyncStatus>]>([
  ['nobody answers', new Unreachable('No connection.'), { online: false, problem: null }],
  [
    'somebody else answers',
    new Unreachable('Something else answered (200).', 200),
    { online: false, problem: 'Something else answered (200).' },
  ],
  ['the server cannot', new ServerProblem(503, 'The disk is full.'), { online: true, problem: 'The disk is full.' }],
  ['we are too old', new ServerProblem(426, 'Load this page anew.'), { online: true, problem: 'Load this page anew.' }],
  [
    'it is our own fault',
    new TypeError('x is not a function'),
    { problem: 'Syncing stopped: TypeError: x is not a function. Nothing is lost; it is tried again.' },
  ],
])('says what is wrong when %s, and ends no session', async (_what, error, told) => {
  const { rounds, ring, calls, status } = loop(failing(error));
  rounds.soon();
  await ring();
  expect(status()).toMatchObject({ settled: true, doing: 'nothing', ...told });
  expect(calls).toEqual([]);
});

it('ends the session when the server itself says that it has ended', async () => {
  const { rounds, ring, calls, status } = loop(failing(new ServerProblem(401, 'Sign in to go on.')));
  rounds.soon();
  await ring();
  expect(calls).toEqual(['session lost']);
  expect(status()).toMatchObject({ problem: null, online: true });
});

it('does nothing without a network or without a library, and begins nothing once it is stopped', async () => {
  const away = loop({ isOnline: () => false });
  away.rounds.soon();
  await away.ring();
  expect([away.calls, away.status().online, away.status().settled]).toEqual([[], false, true]);
  const nobody = loop({ library: () => null });
  nobody.rounds.soon();
  await nobody.ring();
  expect(nobody.calls).toEqual([]);
  const { rounds, timers } = loop();
  rounds.soon();
  rounds.stop();
  rounds.soon();
  expect(timers).toEqual([]);
  rounds.start();
  expect(timers.map(({ ms }) => ms)).toEqual([0]);
});
