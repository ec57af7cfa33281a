import 'fake-indexeddb/auto';
import { endSimulation, runSchedule, TRUE_CLOCKS_MS, WRONG_BY_DAYS_MS } from './sync-simulation';
import { turn } from './turn';

jest.mock('../../app/src/device/store/settings-storage', () => ({
  readSetting: (_name: string, _schema: unknown, otherwise: unknown) => otherwise,
  writeSetting: () => undefined,
}));
// The app has one clock; here it is that of the device whose turn it is.
jest.mock('../../app/src/device/store/clock', () => {
  const { turn: whose } = jest.requireActual<typeof import('./turn')>('./turn');
  return {
    clock: { next: (...replaced: string[]) => whose.device?.own.clock.next(...replaced), see: () => undefined },
    serverTime: () => whose.device?.own.serverTime(),
    setServerTime: (now: number, askedAt: number) => whose.device?.own.setServerTime(now, askedAt),
  };
});

/** `SCHEDULES=10000 npx jest e2e/house/sync-simulation` runs as many. */
const SCHEDULES = Number(process.env.SCHEDULES ?? 300);
const AT_ONCE = 20;

beforeAll(() => jest.spyOn(Date, 'now').mockImplementation(() => turn.now + (turn.device?.skewMs ?? 0)));
afterAll(() => {
  jest.restoreAllMocks();
  endSimulation();
});

// Of 10,000 schedules two: the answer to a change with an implausible stamp was lost, and its stamp plausible by the time it came again.
it.each([342, 753])('a schedule that went wrong once goes right: %i', async (seed) => {
  expect(await runSchedule({ seed, devices: 3, steps: 30, skewMs: WRONG_BY_DAYS_MS })).toEqual([]);
});

describe.each([
  ['clocks that are right', TRUE_CLOCKS_MS, 0, 0],
  ['clocks that are wrong by up to two days', WRONG_BY_DAYS_MS, 0, 0],
  ['a server that is set back to a backup', TRUE_CLOCKS_MS, 1, 0],
  ['one among them that is too old for the server at first', WRONG_BY_DAYS_MS, 0, 1],
])('devices with %s, over a network that breaks', (_what, skewMs, restores, old) => {
  const seeds = Array.from({ length: Math.ceil(SCHEDULES / 4 / AT_ONCE) }, (_, n) => n * AT_ONCE + 1);
  it.each(seeds)(
    'come to the same, lose nothing, and take every press: schedules from %i on',
    async (from) => {
      for (let seed = from; seed < from + AT_ONCE; seed++)
        expect({ seed, problems: await runSchedule({ seed, devices: 3, steps: 30, skewMs, restores, old }) }).toEqual({
          seed,
          problems: [],
        });
    },
    120_000,
  );
});
