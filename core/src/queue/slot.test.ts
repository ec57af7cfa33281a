import fc from 'fast-check';
import { type SlotCandidate, slotPlanner, slotWorth } from '.';

const candidate = (minutes: number, begun = false, id = `${minutes}`): SlotCandidate => ({
  id,
  minutes,
  begun,
});
const candidates = fc
  .array(fc.record({ minutes: fc.double({ min: 0.1, max: 30, noNaN: true }), begun: fc.boolean() }), {
    maxLength: 9,
  })
  .map((list) => list.map((each, index) => ({ ...each, id: String(index) })));

/** Every subset, weighed: what the planner must come up to. */
function bruteForce(list: readonly SlotCandidate[], minutes: number): number {
  let best = 0;
  for (let mask = 0; mask < 1 << list.length; mask++) {
    const { worth, steps } = slotWorth(
      list.map((each, place) => ({ candidate: each, place })).filter(({ place }) => mask & (1 << place)),
    );
    if (steps <= Math.floor(minutes * 2)) best = Math.max(best, worth);
  }
  return best;
}

describe('the plan of a slot', () => {
  it('is as good as trying every set', () => {
    fc.assert(
      fc.property(candidates, fc.integer({ min: 5, max: 90 }), (list, minutes) => {
        const plan = slotPlanner(list)(minutes);
        const chosen = list
          .map((each, place) => ({ candidate: each, place }))
          .filter(({ candidate: { id } }) => plan.ids.includes(id));
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

  it('is empty when nothing fits', () => {
    expect(slotPlanner([candidate(12)])(5)).toEqual({ ids: [], minutes: 0 });
    expect(slotPlanner([])(90).ids).toEqual([]);
  });
});
