/** A finger that draws something out feels it give way less and less. At most so far, in CSS pixels. */
const MOST = 110;

/** So far it has to be drawn to mean it. */
export const ENOUGH_DRAWN = 64;

/**
 * How far something is drawn out by a finger.
 *
 * @param by how far the finger has gone, in CSS pixels
 * @returns CSS pixels, 0 up to a bound
 */
export const drawnBy = (by: number): number => (by > 0 ? MOST * (1 - Math.exp(-by / (1.6 * MOST))) : 0);

/** Whether a finger that begins at the left edge and has gone so far means to go back. */
export const meansBack = (dx: number, dy: number, width: number): boolean =>
  dx >= Math.min(140, width / 3) && dx > 1.5 * Math.abs(dy);

/** So near the edge a stroke begins that goes back, in CSS pixels. */
export const EDGE = 24;
