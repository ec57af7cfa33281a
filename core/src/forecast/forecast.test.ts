import fc from 'fast-check';
import type { Item } from '../model';
import { addDays } from '../reading';
import { newItem } from '../records';
import { pageFrom } from '../testing';
import { flowsOf, forecast, meanWait, randomFrom, waitingByWeek, waitingMinutes, type WeekFlow } from '.';

const DAY = 86_400_000;
const TODAY = '2026-11-26';
const NOW = Date.parse(`${TODAY}T12:00Z`);
const dayOf = (instant: number) => new Date(instant).toISOString().slice(0, 10);
const stampAt = (instant: number) => `${instant.toString(36).padStart(9, '0')}-0000-a`;

let made = 0;
interface Wanted {
  saved: number;
  minutes: number;
  stage?: Item['choices']['stage']['value'];
  decided?: number;
  finished?: number;
  heard?: boolean;
}
/** An item that was saved, decided on and finished so many days ago. */
function item({ saved, minutes, stage = 'queue', decided = saved, finished, heard = false }: Wanted): Item {
  const id = `01900000-0000-7000-8000-${String(++made).padStart(12, '0')}`;
  const savedAt = NOW - saved * DAY;
  const base = newItem({
    type: 'save',
    id,
    itemId: id,
    address: `https://example.org/${made}`,
    savedAt,
    stamp: stampAt(savedAt),
  });
  const at = stampAt(NOW - decided * DAY);
  return {
    ...base,
    choices: {
      ...base.choices,
      stage: { value: stage, at },
      finishedAt: { value: finished === undefined ? null : NOW - finished * DAY, at },
    },
    progress: { furthest: finished === undefined ? 0 : 1, position: null, heard: heard ? [[0, 1000]] : [] },
    capture: { ...base.capture, state: 'arrived', page: pageFrom({ minutes }) },
  };
}

const flow = (cameIn: number, read: number): WeekFlow => ({ startsOn: '2026-01-05', cameIn, read, heard: 0, letGo: 0 });

describe('the weeks behind', () => {
  const items = [
    item({ saved: 20, minutes: 10 }),
    item({ saved: 19, minutes: 20, stage: 'finished', finished: 12 }),
    item({ saved: 18, minutes: 30, stage: 'finished', finished: 5, heard: true }),
    item({ saved: 17, minutes: 40, stage: 'let-go', decided: 6 }),
    item({ saved: 16, minutes: 50, stage: 'kept', decided: 11 }),
    // In the week that is under way.
    item({ saved: 1, minutes: 60, stage: 'inbox' }),
  ];

  it('tell what came in and what left, how, in minutes; without the week under way', () => {
    expect(flowsOf(items, TODAY, dayOf)).toEqual([
      { startsOn: '2026-11-02', cameIn: 60, read: 0, heard: 0, letGo: 0 },
      { startsOn: '2026-11-09', cameIn: 90, read: 20, heard: 0, letGo: 50 },
      { startsOn: '2026-11-16', cameIn: 0, read: 0, heard: 30, letGo: 40 },
    ]);
    expect(flowsOf([], TODAY, dayOf)).toEqual([]);
  });

  it('are at most twelve', () => {
    const flows = flowsOf([item({ saved: 400, minutes: 5 })], TODAY, dayOf);
    expect(flows).toHaveLength(12);
    expect(flows.at(-1)?.startsOn).toBe(addDays('2026-11-23', -7));
  });

  it('lead back from what waits now to what waited then', () => {
    expect(waitingMinutes(items)).toBe(70);
    // Without the sixty that came since.
    expect(waitingByWeek(flowsOf(items, TODAY, dayOf), 10)).toEqual([60, 80, 10]);
  });
});

describe('the forecast', () => {
  it('is none with less than three weeks', () => {
    expect(forecast(100, [flow(10, 20), flow(10, 20)], 1)).toBeNull();
  });

  it('knows the day where every week is the same, and that there is none where more comes than goes', () => {
    const steady = Array.from({ length: 8 }, () => flow(30, 50));
    expect(forecast(100, steady, 1)?.emptyIn).toEqual({ low: 5, middle: 5, high: 5 });
    expect(forecast(90, steady, 1)?.emptyIn.middle).toBeCloseTo(4.5);
    const growing = forecast(
      100,
      Array.from({ length: 8 }, () => flow(50, 30)),
      1,
    );
    expect(growing).toMatchObject({ chance: 0, emptyIn: { low: Infinity } });
    expect(growing?.weeks[4]).toEqual({ low: 200, middle: 200, high: 200 });
    expect(forecast(0, steady, 1)?.emptyIn.high).toBe(0);
  });

  it('is the same for the same seed', () => {
    const weeks = [flow(30, 50), flow(60, 20), flow(10, 70), flow(40, 40)];
    expect(forecast(100, weeks, 7)).toEqual(forecast(100, weeks, 7));
    expect(forecast(100, weeks, 7)).not.toEqual(forecast(100, weeks, 8));
  });

  it('never comes later for reading more or letting more go', () => {
    const weeks = fc.array(fc.tuple(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 200 })), {
      minLength: 3,
      maxLength: 12,
    });
    fc.assert(
      fc.property(weeks, fc.integer({ min: 0, max: 600 }), fc.integer({ min: 1, max: 60 }), (behind, waiting, more) => {
        const flows = behind.map(([cameIn, read]) => flow(cameIn, read));
        const usual = forecast(waiting, flows, 3, {}, { horizon: 20, runs: 60 })!.emptyIn;
        for (const otherwise of [{ moreAWeek: more }, { letGoNow: more }]) {
          const then = forecast(waiting, flows, 3, otherwise, { horizon: 20, runs: 60 })!.emptyIn;
          expect(then.low).toBeLessThanOrEqual(usual.low);
          expect(then.middle).toBeLessThanOrEqual(usual.middle);
          expect(then.high).toBeLessThanOrEqual(usual.high);
        }
      }),
      { numRuns: 60 },
    );
  });

  // Readers whose weeks to come are known: items of two to fourteen minutes, as many a week as chance has it (Poisson).
  it.each([
    [4, 60, 75, 200],
    [12, 40, 70, 300],
  ])(
    'has the true day in its range for three to four of five readers (%i weeks behind)',
    (count, comes, goes, waiting) => {
      const READERS = 1000;
      let inside = 0;
      for (let reader = 0; reader < READERS; reader++) {
        const random = randomFrom(reader * 7919 + count);
        const minutes = (mean: number) => {
          let [sum, product] = [0, random()];
          for (; product > Math.exp(-mean / 8); product *= random()) sum += 2 + 12 * random();
          return sum;
        };
        const week = () => flow(minutes(comes), minutes(goes));
        const told = forecast(waiting, Array.from({ length: count }, week), reader, {}, { horizon: 52, runs: 100 })!;
        let [left, truth] = [waiting, Infinity];
        for (let at = 0; at < 52 && truth === Infinity; at++) {
          const { cameIn, read } = week();
          const before = left;
          left = Math.max(0, left + cameIn - read);
          if (left === 0) truth = at + before / Math.max(before, read - cameIn);
        }
        if (truth >= told.emptyIn.low && truth <= told.emptyIn.high) inside += 1;
      }
      expect(inside / READERS).toBeGreaterThanOrEqual(0.75);
      expect(inside / READERS).toBeLessThanOrEqual(0.85);
    },
  );
});

describe('how long something waits', () => {
  it('is what waits divided by what comes in (Little 1961), as a line of readers in step shows', () => {
    // First come, first read, for four hundred weeks: how long each minute of text really waited.
    const random = randomFrom(5);
    const line: { came: number; minutes: number }[] = [];
    const [flows, ends, waits]: [WeekFlow[], number[], [weeks: number, minutes: number][]] = [[], [], []];
    for (let week = 0; week < 400; week++) {
      const cameIn = 40 + 40 * random();
      line.push({ came: week, minutes: cameIn });
      let room = 62;
      let read = 0;
      while (room > 0 && line[0]) {
        const taken = Math.min(room, line[0].minutes);
        waits.push([week - line[0].came, taken]);
        line[0].minutes -= taken;
        room -= taken;
        read += taken;
        if (line[0].minutes < 1e-9) line.shift();
      }
      flows.push(flow(cameIn, read));
      ends.push(line.reduce((sum, each) => sum + each.minutes, 0));
    }
    const gone = waits.reduce((sum, [, minutes]) => sum + minutes, 0);
    const waited = waits.reduce((sum, [weeks, minutes]) => sum + weeks * minutes, 0) / gone;
    expect(meanWait(ends, flows)).toBeCloseTo(waited, 1);
    expect(waited).toBeGreaterThan(0.1);
  });

  it('cannot be told where nothing comes in', () => {
    expect(meanWait([10, 10], [flow(0, 5), flow(0, 5)])).toBeNull();
  });
});
