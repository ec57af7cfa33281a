/**
 * Where a row is parted: the first index at which a condition holds, when it holds from there to the end. Binary search;
 * also called lower bound (Knuth, The Art of Computer Programming, vol. 3, 6.2.1).
 *
 * @param count of the row, from 0
 * @param holds false up to some index, true from there on
 * @returns 0 to `count`; `count` when it holds nowhere
 */
export function partitionPoint(count: number, holds: (index: number) => boolean): number {
  let low = 0;
  let high = count;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
