/**
 * A scale for an axis: a round number at the top that the largest value stays under, in three to five sections
 * of a round number each.
 *
 * @param most the largest value, 0 or more
 */
export function scaleFor(most: number): { top: number; sections: number } {
  for (let power = 1; ; power *= 10)
    for (const step of [1, 2, 5].map((unit) => unit * power)) {
      const sections = Math.max(3, Math.ceil(most / step));
      if (sections <= 5) return { top: sections * step, sections };
    }
}
