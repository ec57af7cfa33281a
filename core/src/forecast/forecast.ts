import { outOf, type WeekFlow } from './flows';

/** A value with the range in which it lies in eight of ten cases. */
export interface Range {
  low: number;
  middle: number;
  high: number;
}

/** What would happen to what waits if the weeks to come were like those behind. */
export interface Forecast {
  /** Minutes that wait at the end of each week to come. */
  weeks: Range[];
  /** In how many weeks nothing waits any more; Infinity where it does not happen within the horizon. */
  emptyIn: Range;
  /** The part of all runs in which it happens within the horizon, 0 to 1. */
  chance: number;
}

/** What the reader might do otherwise. */
export interface Otherwise {
  /** Minutes more that are read each week. */
  moreAWeek?: number;
  /** Minutes that are let go now. */
  letGoNow?: number;
}

/** Fewer weeks than this tell nothing of those to come. */
export const LEAST_WEEKS = 3;
/** What lies farther ahead than a year is no forecast. */
export const HORIZON_WEEKS = 52;
const USUAL = { horizon: HORIZON_WEEKS, runs: 1000 };
const LOW = 0.1;
const HIGH = 0.9;

/**
 * A Monte Carlo forecast. Each run first draws what the mean of the weeks and their spread might be, as far as few weeks
 * tell (the posterior for a normal distribution with nothing known before: Student's t; Gelman et al., Bayesian Data
 * Analysis, 3.2), then goes on with weeks drawn from those behind, moved and spread so. A week is drawn as a whole: what
 * comes in and what is read have to do with each other.
 *
 * @param waiting minutes that wait now
 * @param flows the weeks behind; see flowsOf
 * @param seed of the random numbers: the same seed gives the same forecast
 * @returns null with fewer than three weeks
 */
export function forecast(
  waiting: number,
  flows: readonly WeekFlow[],
  seed: number,
  { moreAWeek = 0, letGoNow = 0 }: Otherwise = {},
  { horizon, runs } = USUAL,
): Forecast | null {
  if (flows.length < LEAST_WEEKS) return null;
  const random = randomFrom(seed);
  const nets = flows.map((flow) => flow.cameIn - outOf(flow));
  const middle = mean(nets);
  const wider = Math.sqrt(nets.length / (nets.length - 1));
  const beside = nets.map((net) => (net - middle) * wider);
  const deviation = Math.sqrt(mean(beside.map((each) => each ** 2)));
  const ends = Array.from({ length: horizon }, () => new Float64Array(runs));
  const empties = new Float64Array(runs);
  for (let run = 0; run < runs; run++) {
    const scale = Math.sqrt((nets.length - 1) / chiSquared(nets.length - 1, random));
    const drawnMean = middle + (normal(random) * scale * deviation) / Math.sqrt(nets.length);
    let left = Math.max(0, waiting - letGoNow);
    let emptyIn = left <= 0 ? 0 : Infinity;
    for (const [week, of] of ends.entries()) {
      const net = drawnMean + scale * (beside[Math.floor(random() * beside.length)] ?? 0);
      const before = left;
      left = Math.max(0, left + net - moreAWeek);
      // Within the week, as if it passed evenly.
      if (left === 0 && emptyIn === Infinity) emptyIn = week + before / Math.max(before, moreAWeek - net);
      of[run] = left;
    }
    empties[run] = emptyIn;
  }
  return {
    weeks: ends.map(rangeOf),
    emptyIn: rangeOf(empties),
    chance: empties.filter(Number.isFinite).length / runs,
  };
}

/**
 * How long something waits that comes in now, in weeks: Little's law (Little 1961), what waits divided by what comes.
 *
 * @returns null when nothing comes in
 */
export function meanWait(waiting: readonly number[], flows: readonly WeekFlow[]): number | null {
  const cameIn = mean(flows.map((flow) => flow.cameIn));
  return cameIn > 0 ? mean(waiting) / cameIn : null;
}

/** From the standard normal distribution: Box and Muller 1958. */
function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** From the chi-squared distribution: the sum of so many squared normals, by its definition. */
function chiSquared(degrees: number, random: () => number): number {
  let sum = 0;
  for (let at = 0; at < degrees; at++) sum += normal(random) ** 2;
  return sum;
}

function mean(values: readonly number[]): number {
  return values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
}

function rangeOf(values: Float64Array): Range {
  const sorted = values.slice().sort();
  const at = (part: number) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? 0;
  return { low: at(LOW), middle: at(0.5), high: at(HIGH) };
}

/** Numbers from 0 to 1 by a seed: mulberry32 (public domain, T. Ettinger; from memory). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
