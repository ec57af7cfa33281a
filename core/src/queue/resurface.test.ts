import fc from 'fast-check';
import { addDays, daysBetween } from '../reading';
import { reasonInWords } from '../wording';
import { longestWait, type ResurfaceCandidate, RESURFACED_A_DAY, resurfaceToday, resurfacingScore } from '.';

const TODAY = '2026-11-24';
const waiting = (changes: Partial<ResurfaceCandidate> = {}): ResurfaceCandidate => ({
  id: 'a',
  savedOn: '2026-11-01',
  queuedOn: '2026-11-02',
  passed: 0,
  minutesLeft: 12,
  promisedFor: null,
  shown: { times: 0, lastOn: null },
  passedOver: { times: 0, lastOn: null },
  nearness: 0,
  nearTo: 0,
  ...changes,
});
const score = (changes: Partial<ResurfaceCandidate>) => resurfacingScore(waiting(changes), TODAY);

describe('the resurfacing score', () => {
  it('is the documented formula', () => {
    // 22 days since it was queued, 23 since it was saved, 40 % passed, near enough, passed over twice, shown three times.
    const expected =
      22 + 10 * (1 - 2 ** (-23 / 30)) + (4 + 4 * 0.4) + 14 * 0.4 - 12 * (1 - 2 ** -1) - 4 * (1 - 2 ** -1);
    expect(
      score({
        passed: 0.4,
        nearness: 0.2,
        passedOver: { times: 2, lastOn: null },
        shown: { times: 3, lastOn: null },
      }),
    ).toBeCloseTo(expected, 10);
  });

  it.each<[string, Partial<ResurfaceCandidate>]>([
    ['age', { savedOn: '2026-06-01' }],
    ['a beginning', { passed: 0.3 }],
    ['nearness', { nearness: 0.2 }],
    ['a missed promise', { promisedFor: '2026-11-20' }],
    ['waiting', { queuedOn: '2026-10-01' }],
  ])('rises with %s', (_what, changes) => {
    expect(score(changes)).toBeGreaterThan(score({}));
  });

  it('falls with being shown and with being passed over', () => {
    const shown = score({ shown: { times: 2, lastOn: '2026-11-10' } });
    expect(shown).toBeLessThan(score({}));
    expect(score({ passedOver: { times: 1, lastOn: '2026-11-10' } })).toBeLessThan(score({}));
  });
});

describe('what is lifted today', () => {
  const many = (count: number, changes: (index: number) => Partial<ResurfaceCandidate>) =>
    Array.from({ length: count }, (_, index) => waiting({ id: String(index).padStart(3, '0'), ...changes(index) }));

  it('stays the same all day, however often one looks', () => {
    const items = many(8, (index) => ({ savedOn: addDays(TODAY, -index * 9) }));
    const first = resurfaceToday(items, TODAY).map(({ id }) => id);
    expect(first).toHaveLength(RESURFACED_A_DAY);
    const after = items.map((item) =>
      first.includes(item.id) ? { ...item, shown: { times: 1, lastOn: TODAY } } : item,
    );
    expect(
      resurfaceToday(after, TODAY)
        .map(({ id }) => id)
        .sort(),
    ).toEqual([...first].sort());
  });

  it('is not replaced the same day when it is passed over, and rests after it', () => {
    const items = many(8, () => ({}));
    const [first] = resurfaceToday(items, TODAY);
    const passed = items.map((item) =>
      item.id === first?.id
        ? { ...item, shown: { times: 1, lastOn: TODAY }, passedOver: { times: 1, lastOn: TODAY } }
        : {
            ...item,
            shown: resurfaceToday(items, TODAY).some(({ id }) => id === item.id)
              ? { times: 1, lastOn: TODAY }
              : item.shown,
          },
    );
    expect(resurfaceToday(passed, TODAY)).toHaveLength(RESURFACED_A_DAY - 1);
    expect(resurfaceToday(passed, addDays(TODAY, 1)).map(({ id }) => id)).not.toContain(first?.id);
  });

  it('does not come before the day for which it is promised', () => {
    expect(resurfaceToday([waiting({ promisedFor: '2026-12-01', savedOn: '2020-01-01' })], TODAY)).toEqual([]);
  });

  it('says when it was saved and what speaks for it most', () => {
    const say = (changes: Partial<ResurfaceCandidate>) => {
      const [lifted] = resurfaceToday([waiting(changes)], TODAY);
      return reasonInWords(lifted?.reasons ?? []);
    };
    expect(say({ savedOn: '2026-10-06', nearness: 0.4, nearTo: 2 })).toBe(
      'saved 7 weeks ago, close to two things you finished lately',
    );
    expect(say({ savedOn: '2026-10-06', passed: 0.5, minutesLeft: 6.2 })).toBe('saved 7 weeks ago, begun, 6 min left');
    expect(say({ savedOn: '2026-05-01', shown: { times: 1, lastOn: '2026-10-25' } })).toBe(
      'saved 7 months ago, not brought up for 4 weeks',
    );
  });
});

describe('what was never shown', () => {
  // Nineteen that are wanted in every way, and one that nothing speaks for but its waiting.
  const tempting = (n: number) =>
    waiting({
      id: `t${String(n).padStart(2, '0')}`,
      savedOn: '2020-01-01',
      queuedOn: '2026-09-01',
      passed: 0.9,
      nearness: 1,
      shown: { times: 1, lastOn: '2026-10-20' },
    });
  const dull = (days: number, id = 'dull') =>
    waiting({ id, savedOn: addDays(TODAY, -days), queuedOn: addDays(TODAY, -days) });
  const lifted = (...others: ResurfaceCandidate[]) =>
    resurfaceToday([...Array.from({ length: 19 }, (_, n) => tempting(n)), ...others], TODAY).map(({ id }) => id);

  it('has one of the places once it has waited for twelve days, and not before', () => {
    expect(lifted(dull(11))).not.toContain('dull');
    expect(lifted(dull(12))).toEqual(['t00', 't01', 'dull']);
    expect(lifted(dull(12), dull(13, 'older'))).toEqual(['t00', 't01', 'older']);
  });

  it('has all of them once it has waited for 26', () => {
    expect(lifted(dull(26, 'a'), dull(40, 'b'), dull(30, 'c'), dull(29, 'd'))).toEqual(['b', 'c', 'd']);
  });

  it('had no turn either when it was shown while the reader still remembered it', () => {
    const shownAt = (days: number) => ({
      ...dull(26, 'a'),
      shown: { times: 1, lastOn: addDays(TODAY, days - 26) },
    });
    expect(lifted(shownAt(6))).toContain('a');
    expect(lifted(shownAt(7))).not.toContain('a');
  });

  it('stands in one line with what was shown and has waited for longer than the score allows', () => {
    const shown = { ...dull(90, 'shown'), shown: { times: 9, lastOn: addDays(TODAY, -60) } };
    // Overdue by four days, five, three, one and none.
    expect(lifted(shown, dull(31, 'a'), dull(29, 'b'), dull(27, 'c'), dull(26, 'd'))).toEqual(['a', 'shown', 'b']);
  });
});

describe('no item of the Queue sinks for good', () => {
  /** What a day brings to an item, at worst: anything at all that the bounded parts of the score can take. */
  const whims = fc.record({
    passed: fc.constantFrom(0, 0.5, 1),
    nearness: fc.constantFrom(0, 0.1, 1),
    missed: fc.boolean(),
    over: fc.nat(20),
    shownTimes: fc.nat(20),
    age: fc.nat(900),
  });

  it('is lifted within a number of days that only the size of the Queue decides', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 24 }), fc.array(whims, { minLength: 30, maxLength: 30 }), (size, dealt) => {
        const start = '2026-01-01';
        let shownOn = new Map<string, string>();
        const seen = new Map(Array.from({ length: size }, (_, index) => [String(index), start]));
        let worst = 0;
        for (let day = 0; day < 260; day++) {
          const today = addDays(start, day);
          const items = [...seen.keys()].map((id): ResurfaceCandidate => {
            const whim = dealt[(Number(id) * 7 + day * 13) % dealt.length]!;
            return waiting({
              id,
              savedOn: addDays(today, -whim.age),
              queuedOn: start,
              passed: whim.passed,
              promisedFor: whim.missed ? addDays(today, -1) : null,
              shown: { times: whim.shownTimes, lastOn: shownOn.get(id) ?? null },
              passedOver: { times: whim.over, lastOn: null },
              nearness: whim.nearness,
            });
          });
          for (const { id } of resurfaceToday(items, today)) {
            worst = Math.max(worst, daysBetween(seen.get(id) ?? start, today));
            seen.set(id, today);
            shownOn = new Map(shownOn).set(id, today);
          }
          for (const last of seen.values()) worst = Math.max(worst, daysBetween(last, today));
        }
        expect(worst).toBeLessThanOrEqual(longestWait(size));
      }),
      { numRuns: 40 },
    );
  });

  it('though three new items come in every day, are shown once each, and are read then', () => {
    const start = '2026-01-01';
    let lastOn = start;
    let worst = 0;
    // They wait four weeks each, behind those that were there on the first day.
    let queue = Array.from({ length: 84 }, (_, n) => ({ id: `old-${n}`, queuedOn: start }));
    let largest = 0;
    for (let day = 1; day < 300; day++) {
      const today = addDays(start, day);
      queue.push(...[0, 1, 2].map((n) => ({ id: `new-${day}-${n}`, queuedOn: today })));
      largest = Math.max(largest, queue.length + 1);
      const dull = waiting({
        id: 'dull',
        savedOn: start,
        queuedOn: start,
        shown: { times: 9, lastOn },
        passedOver: { times: 50, lastOn: null },
      });
      const others = queue.map(({ id, queuedOn }) => waiting({ id, queuedOn, savedOn: queuedOn, passed: 0.5 }));
      const lifted = resurfaceToday([dull, ...others], today).map(({ id }) => id);
      worst = Math.max(worst, daysBetween(lastOn, today));
      if (lifted.includes('dull')) lastOn = today;
      queue = queue.filter(({ id }) => !lifted.includes(id));
    }
    expect(lastOn).not.toBe(start);
    expect(worst).toBeLessThanOrEqual(longestWait(largest));
  });

  it('though new items come in every day, each as tempting as can be', () => {
    const start = '2026-01-01';
    const dull = { id: 'dull', since: start, last: start, worst: 0 };
    let queue: { id: string; queuedOn: string; lastOn: string | null }[] = [
      { id: 'dull', queuedOn: start, lastOn: null },
    ];
    let largest = 0;
    for (let day = 0; day < 200; day++) {
      const today = addDays(start, day);
      queue.push(...[0, 1, 2, 3].map((n) => ({ id: `new-${day}-${n}`, queuedOn: today, lastOn: null })));
      largest = Math.max(largest, queue.length);
      const lifted = resurfaceToday(
        queue.map(({ id, queuedOn, lastOn }) =>
          waiting({
            id,
            queuedOn,
            shown: { times: lastOn ? 1 : 0, lastOn },
            ...(id === 'dull'
              ? { savedOn: today, passedOver: { times: 50, lastOn: null } }
              : { savedOn: '2020-01-01', nearness: 1, passed: 0.9, promisedFor: addDays(today, -1) }),
          }),
        ),
        today,
      ).map(({ id }) => id);
      if (lifted.includes('dull')) {
        dull.worst = Math.max(dull.worst, daysBetween(dull.last, today));
        dull.last = today;
      }
      // All that is new is read as soon as it is shown; only the dull one stays.
      queue = queue
        .filter(({ id }) => id === 'dull' || !lifted.includes(id))
        .map((each) => (lifted.includes(each.id) ? { ...each, lastOn: today } : each));
    }
    expect(dull.last).not.toBe(start);
    expect(dull.worst).toBeLessThanOrEqual(longestWait(largest));
  });
});
