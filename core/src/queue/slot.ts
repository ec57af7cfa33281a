/** Something of the Queue that may go into a slot. */
export interface SlotCandidate {
  id: string;
  /** Minutes left, by eye or by ear. */
  minutes: number;
  /** True when the reader has begun it. */
  begun: boolean;
}

/** What fills a slot. */
export interface SlotPlan {
  /** What was begun first, then in the order of the Queue. */
  ids: string[];
  /** Minutes that they take together. */
  minutes: number;
}

export const SLOT_RANGE = { shortest: 5, longest: 90, step: 5 } as const;

/** Minutes are counted in halves, rounded up: a plan never takes longer than its slot. */
const STEPS_PER_MINUTE = 2;

/**
 * What an item is worth for each half minute: the slot should be well filled before all else, so every half
 * minute counts 100; being near the top of the Queue, or begun, adds at most a third to it.
 */
function worthOf(candidate: SlotCandidate, place: number): number {
  const perStep = 100 + Math.round(20 * 0.85 ** place) + (candidate.begun ? 15 : 0);
  return stepsOf(candidate) * perStep;
}

function stepsOf({ minutes }: SlotCandidate): number {
  return Math.max(1, Math.ceil(minutes * STEPS_PER_MINUTE));
}

/** The worth of a set of candidates, given with their places in the Queue; for comparing plans. */
export function slotWorth(chosen: readonly { candidate: SlotCandidate; place: number }[]): {
  worth: number;
  steps: number;
} {
  return {
    worth: chosen.reduce((sum, { candidate, place }) => sum + worthOf(candidate, place), 0),
    steps: chosen.reduce((sum, { candidate }) => sum + stepsOf(candidate), 0),
  };
}

/**
 * Fills slots from the Queue: the 0/1 knapsack problem, solved exactly by dynamic programming (Bellman 1957) for
 * every slot at once, so that asking again while the slot is dragged costs next to nothing.
 *
 * @param candidates in the order of the Queue
 * @param longest the longest slot that will be asked for, in minutes
 * @returns what to put into a slot of this many minutes
 */
export function slotPlanner(
  candidates: readonly SlotCandidate[],
  longest: number = SLOT_RANGE.longest,
): (minutes: number) => SlotPlan {
  const room = longest * STEPS_PER_MINUTE;
  let best = new Float64Array(room + 1);
  /** For each candidate, whether the best plan for a room takes it when only it and those before it may be taken. */
  const taken = candidates.map((candidate, place) => {
    const steps = stepsOf(candidate);
    const worth = worthOf(candidate, place);
    const takes = new Uint8Array(room + 1);
    const next = best.slice();
    for (let left = steps; left <= room; left++) {
      const withIt = (best[left - steps] ?? 0) + worth;
      if (withIt > (next[left] ?? 0)) {
        next[left] = withIt;
        takes[left] = 1;
      }
    }
    best = next;
    return takes;
  });
  return (minutes) => {
    let left = Math.max(0, Math.min(room, Math.floor(minutes * STEPS_PER_MINUTE)));
    const chosen: SlotCandidate[] = [];
    for (let place = candidates.length - 1; place >= 0; place--) {
      const candidate = candidates[place];
      if (!candidate || taken[place]?.[left] !== 1) continue;
      chosen.unshift(candidate);
      left -= stepsOf(candidate);
    }
    return {
      ids: [...chosen.filter(({ begun }) => begun), ...chosen.filter(({ begun }) => !begun)].map(({ id }) => id),
      minutes: chosen.reduce((sum, candidate) => sum + candidate.minutes, 0),
    };
  };
}
