/**
 * A hybrid logical clock: stamps that follow wall time closely, never go back, and order events that saw
 * each other (Kulkarni, Demirbas et al. 2014, "Logical Physical Clocks"). Written so that stamps sort as
 * strings: nine base-36 digits of milliseconds, four of counter, then the device.
 */
export interface HybridClock {
  /**
   * A stamp later than every stamp given out or seen so far.
   *
   * @param replaced stamps that it must exceed, however far ahead they are: what a reader does must win over what it
   *   replaces
   */
  next(...replaced: readonly string[]): string;
  /** Takes note of a stamp from elsewhere. */
  see(stamp: string): void;
}

const WALL_DIGITS = 9;
const COUNTER_DIGITS = 4;
const COUNTER_LIMIT = 36 ** COUNTER_DIGITS;
/** Clocks that are set right differ by less. One that is further ahead must not drag every other clock with it. */
export const FUTURE_TOLERANCE_MS = 5 * 60 * 1000;

/**
 * @param device names the device, letters a–z, digits and hyphens, at most 36: breaks ties
 * @param now wall clock in milliseconds
 * @param last the latest stamp known, when the clock goes on after a restart
 */
export function createClock(device: string, now: () => number, last?: string): HybridClock {
  let wall = 0;
  let counter = 0;
  const see = (stamp: string) => {
    const [wallPart = '', counterPart = ''] = stamp.split('-');
    const seenWall = parseInt(wallPart, 36);
    const seenCounter = parseInt(counterPart, 36);
    if (!(seenWall <= now() + FUTURE_TOLERANCE_MS)) return;
    if (seenWall > wall || (seenWall === wall && seenCounter > counter)) {
      wall = seenWall;
      counter = seenCounter;
    }
  };
  if (last) see(last);
  const stamp = () => `${digits(wall, WALL_DIGITS)}-${digits(counter, COUNTER_DIGITS)}-${device}`;
  return {
    see,
    next(...replaced) {
      const present = now();
      if (present > wall) {
        wall = present;
        counter = 0;
      } else if (++counter >= COUNTER_LIMIT) {
        wall += 1;
        counter = 0;
      }
      const latest = replaced.reduce((a, b) => (a > b ? a : b), '');
      return latest < stamp() ? stamp() : justAfter(latest, device);
    },
  };
}

/** The next stamp after one that is ahead, which the clock itself does not follow. */
function justAfter(stamp: string, device: string): string {
  const [wallPart = '', counterPart = ''] = stamp.split('-');
  const counter = parseInt(counterPart, 36) + 1;
  const [wall, rest] =
    counter < COUNTER_LIMIT ? [wallPart, counter] : [digits(parseInt(wallPart, 36) + 1, WALL_DIGITS), 0];
  return `${wall}-${digits(rest, COUNTER_DIGITS)}-${device}`;
}

function digits(value: number, width: number): string {
  return value.toString(36).padStart(width, '0');
}
