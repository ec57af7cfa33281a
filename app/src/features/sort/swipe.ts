/** A stroke counts as a swipe when it goes this far, in CSS pixels. */
const FAR_ENOUGH = 90;
/** And when it goes so much more sideways than up or down. */
const SIDEWAYS = 1.6;

/** Where a stroke of the finger leads: sideways, or nowhere when it was short or a scroll. */
export function swipeOf(dx: number, dy: number): 'left' | 'right' | null {
  // Written so that what is no number leads nowhere: a swipe decides.
  if (!(Math.abs(dx) >= FAR_ENOUGH && Math.abs(dx) >= SIDEWAYS * Math.abs(dy))) return null;
  return dx > 0 ? 'right' : 'left';
}
