const BETWEEN = 6;

/**
 * Where things of some heights stand in a margin: each as high as its line where there is room, else below the one before.
 *
 * @param wanted the heights of their lines, from the top, in order
 * @returns their upper edges, none over another
 */
export function besideEachOther(wanted: readonly number[], heights: readonly number[]): number[] {
  let free = -Infinity;
  return wanted.map((line, at) => {
    const top = Math.max(line, free);
    free = top + (heights[at] ?? 0) + BETWEEN;
    return top;
  });
}
