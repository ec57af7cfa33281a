import fc from 'fast-check';
import { type SlotCandidate, slotPlanner, slotWorth } from '.';

const candidate = (minutes: number, begun = false, id = `${minutes}`): SlotCandidate => ({
  id,
  minutes,
  begun,
});
const candidates = fc
  .array(
    fc.record({
      minutes: fc.double({ min: 0.1, max: 30, noNaN: true }),
      begun: fc.boolean(),
      stops: fc.array(fc.double({ min: 0.1, max: 30, noNaN: true }), { maxLength: 2 }),
    }),
    { maxLength: 7 },
  )
  .map((list) =>
    list.map((each, index) => ({
      ...each,
      stops: each.stops.filter((stop) => stop < each.minutes).sort((a, b) => a - b),
      id: String(index),
    })),
  );

type Taken = Parameters<typeof slotWorth>[0][number];

/** Every way to take some, in part or whole, weighed: what the planner must come up to. */
function bruteForce(list: readonly SlotCandidate[], minutes: number, chosen: readonly Taken[] = [], place = 0): number {
  const { worth, steps } = slotWorth(chosen);
  if (steps > Math.floor(minutes * 2)) return 0;
  const candidate = list[place];
  if (!candidate) return worth;
  const ways = [null, ...(candidate.stops ?? []), candidate.minutes].map((amount) =>
    bruteForce(list, minutes, amount === null ? chosen : [...chosen, { candidate, place, minutes: amount }], place + 1),
  );
  return Math.max(...ways);
}

describe('the plan of a slot', () => {
  it('is as good as trying every set, with every part', () => {
    fc.assert(
      fc.property(candidates, fc.integer({ min: 5, max: 90 }), (list, minutes) => {
        const plan = slotPlanner(list)(minutes);
        const chosen = list.flatMap((candidate, place) =>
          plan.ids.includes(candidate.id)
            ? [{ candidate, place, minutes: plan.parts.get(candidate.id) ?? candidate.minutes }]
            : [],
        );
        expect(slotWorth(chosen).worth).toBe(bruteForce(list, minutes));
      }),
    );
  });

  it('never takes longer than the slot, and takes nothing twice', () => {
    fc.assert(
      fc.property(candidates, fc.integer({ min: 5, max: 90 }), (list, minutes) => {
        const plan = slotPlanner(list)(minutes);
        expect(plan.minutes).toBeLessThanOrEqual(minutes);
        expect(new Set(plan.ids).size).toBe(plan.ids.length);
      }),
    );
  });

  it('fills the slot before it looks at the order', () => {
    // 24 of 25 minutes are better filled by the last two than 15 by the first.
    expect(slotPlanner([candidate(15), candidate(13), candidate(12)])(25).ids).toEqual(['13', '12']);
  });

  it('takes what is higher in the Queue where two fit as well, and puts what was begun first', () => {
    expect(slotPlanner([candidate(10, false, 'a'), candidate(10, false, 'b')])(10).ids).toEqual(['a']);
    expect(slotPlanner([candidate(10, false, 'a'), candidate(5, true, 'b')])(15).ids).toEqual(['b', 'a']);
  });

  it('takes a long text up to a heading where all of it does not fit, and something whole before that', () => {
    const long: SlotCandidate = { ...candidate(60, false, 'long'), stops: [12, 24, 41] };
    expect(slotPlanner([long])(25)).toEqual({ ids: ['long'], minutes: 24, parts: new Map([['long', 24]]) });
    expect(slotPlanner([long])(60).parts.size).toBe(0);
    const whole = slotPlanner([long, candidate(24, false, 'whole')])(25);
    expect(whole).toEqual({ ids: ['whole'], minutes: 24, parts: new Map() });
  });

  it('is empty when nothing fits', () => {
    expect(slotPlanner([candidate(12)])(5)).toEqual({ ids: [], minutes: 0, parts: new Map() });
    expect(slotPlanner([])(90).ids).toEqual([]);
  });
});
