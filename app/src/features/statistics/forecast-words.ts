import { type Forecast, HORIZON_WEEKS } from '@dorvel/core/forecast';

/** Below this it is not said that it will be empty at all. */
const LIKELY = 0.5;

/** When nothing would wait any more, in words: "At this pace it is empty in 5 to 9 weeks." */
export function emptyInWords({ emptyIn, chance }: Forecast): string {
  if (emptyIn.high === 0) return 'It is empty.';
  if (chance < 0.05) return 'At this pace it will not be empty within a year.';
  if (chance < LIKELY)
    return `At this pace it will hardly be empty within a year: in ${Math.max(1, Math.round(chance * 10))} of ten cases.`;
  const from = Math.max(1, Math.round(emptyIn.low));
  if (emptyIn.high === Infinity)
    return `At this pace it is empty in ${from} weeks at the earliest, or only after a year.`;
  const to = Math.max(1, Math.round(emptyIn.high));
  if (to >= HORIZON_WEEKS) return `At this pace it is empty in ${from} weeks at the earliest, or after about a year.`;
  const words = from === to ? `about ${to === 1 ? 'a week' : `${to} weeks`}` : `${from} to ${to} weeks`;
  return `At this pace it is empty in ${words}.`;
}

/** Minutes of some weeks, without the tenth that is least and the tenth that is most: "20 to 50 min", "nothing". */
export function rangeInWords(values: readonly number[]): string {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (part: number) => Math.round(sorted[Math.floor(part * (sorted.length - 1))] ?? 0);
  const [low, high] = [at(0.1), at(0.9)];
  if (high === 0) return 'nothing';
  return low === high ? `${low} min` : `${low} to ${high} min`;
}
