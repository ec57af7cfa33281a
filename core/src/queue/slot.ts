/** Something of the Queue that may go into a slot. */
export interface SlotCandidate {
  id: string;
  /** Minutes left, by eye or by ear. */
  minutes: number;
  /** True when the reader has begun it. */
  begun: boolean;
  /** Minutes from here after which it can be put down, as at a heading: ascending, each less than all of it. */
  stops?: readonly number[];
}

/** What fills a slot. */
export interface SlotPlan {
  /** What was begun first, then in the order of the Queue. */
  ids: string[];
  /** Minutes that they take together. */
  minutes: number;
  /** Of what is taken in part: how many minutes of it. */
  parts: ReadonlyMap<string, number>;
}

export const SLOT_RANGE = { shortest: 5, longest: 90, step: 5 } as const;

/** Minutes are counted in halves, rounded up: a plan never takes longer than its slot. */
const STEPS_PER_MINUTE = 2;

/**
 * What an item is worth for each half minute: the slot should be well filled before all else, so every half
 * minute counts 100; being near the top of the Queue, or begun, adds at most a third to it.
 */
function worthOf(candidate: SlotCandidate, place: number, minutes: number): number {
  const inPart = minutes < candidate.minutes ? PART_LESS : 0;
  const perStep = 100 + Math.round(20 * 0.85 ** place) + (candidate.begun ? 15 : 0) - inPart;
  return stepsOf(minutes) * perStep;
}

/** Something whole is better than a part of something else that fills as much. */
const PART_LESS = 25;

/** As much of a candidate as can be taken: up to each of its stops, or all of it. */
function amountsOf({ minutes, stops = [] }: SlotCandidate): number[] {
  return [...stops.filter((stop) => stop > 0 && stop < minutes), minutes].slice(-MOST_AMOUNTS);
}
const MOST_AMOUNTS = 40;

function stepsOf(minutes: number): number {
  return Math.max(1, Math.ceil(minutes * STEPS_PER_MINUTE));
}

/** The worth of a set of candidates, each with its place in the Queue and how much of it is taken; for comparing plans. */
export function slotWorth(chosen: readonly { candidate: SlotCandidate; place: number; minutes: number }[]): {
  worth: number;
  steps: number;
} {
  return {
    worth: chosen.reduce((sum, { candidate, place, minutes }) => sum + worthOf(candidate, place, minutes), 0),
    steps: chosen.reduce((sum, { minutes }) => sum + stepsOf(minutes), 0),
  };
}

/**
 * Fills slots from the Queue: the knapsack problem with one choice for each candidate, none of it, a part up to a stop, or
 * all (Sinha and Zoltners 1979, "The multiple-choice knapsack problem"), solved exactly by dynamic programming (Bellman
 * 1957) for every slot at once, so that asking again while the slot is dragged costs next to nothing.
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
  /** For each candidate, which of its amounts the best plan for a room takes when only it and those before may be; 0 is none. */
  const taken = candidates.map((candidate, place) => {
    const takes = new Uint8Array(room + 1);
    const next = best.slice();
    const amounts = amountsOf(candidate);
    for (const [at, minutes] of amounts.entries()) {
      const steps = stepsOf(minutes);
      const worth = worthOf(candidate, place, minutes);
      for (let left = steps; left <= room; left++) {
        const withIt = (best[left - steps] ?? 0) + worth;
        if (withIt > (next[left] ?? 0)) {
          next[left] = withIt;
          takes[left] = at + 1;
        }
      }
    }
    best = next;
    return { takes, amounts };
  });
  return (minutes) => {
    let left = Math.max(0, Math.min(room, Math.floor(minutes * STEPS_PER_MINUTE)));
    const chosen: { candidate: SlotCandidate; amount: number }[] = [];
    for (let place = candidates.length - 1; place >= 0; place--) {
      const candidate = candidates[place];
      const amount = taken[place]?.amounts[(taken[place]?.takes[left] ?? 0) - 1];
      if (!candidate || amount === undefined) continue;
      chosen.unshift({ candidate, amount });
      left -= stepsOf(amount);
    }
    const isBegun = ({ candidate: { begun } }: (typeof chosen)[number]) => begun;
    const inPart = chosen.filter(({ candidate, amount }) => amount < candidate.minutes);
    return {
      ids: [...chosen.filter(isBegun), ...chosen.filter((each) => !isBegun(each))].map(({ candidate: { id } }) => id),
      minutes: chosen.reduce((sum, { amount }) => sum + amount, 0),
      parts: new Map(inPart.map(({ candidate: { id }, amount }) => [id, amount])),
    };
  };
}
