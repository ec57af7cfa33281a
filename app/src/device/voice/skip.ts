/**
 * Where a jump in time leads among sentences.
 *
 * @param from the sentence, and how far into it, in seconds of sound at a rate of 1
 * @param by seconds of sound, forward or back
 * @param secondsOf how long a sentence is; may be an estimate
 * @param count how many sentences there are
 */
export function placeAfter(
  from: { index: number; seconds: number },
  by: number,
  secondsOf: (index: number) => number,
  count: number,
): { index: number; seconds: number } {
  let { index } = from;
  let seconds = from.seconds + by;
  while (seconds < 0 && index > 0) {
    index -= 1;
    seconds += secondsOf(index);
  }
  while (index < count - 1 && seconds >= secondsOf(index)) {
    seconds -= secondsOf(index);
    index += 1;
  }
  return { index, seconds: Math.max(0, Math.min(seconds, secondsOf(index) * 0.98)) };
}
