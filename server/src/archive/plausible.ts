import { asGivenBy, deviceOf, instantOf, Stamp } from '@dorvel/core/model';
import { FUTURE_TOLERANCE_MS, type HybridClock } from '@dorvel/core/sync';

/**
 * Makes records whose stamps are still to come into such as were decided now: they would win over all that their reader decides
 * until then. The same stamp becomes the same one everywhere.
 */
export function plausibly(clock: HybridClock, now: () => number): <Value>(value: Value) => Value {
  const given = new Map<string, string>();
  const stampNow = (stamp: string): string => {
    const known = given.get(stamp) ?? asGivenBy(deviceOf(stamp), clock.next());
    given.set(stamp, known);
    return known;
  };
  const within = (value: unknown): unknown => {
    if (typeof value === 'string') return isToCome(value) ? stampNow(value) : value;
    if (Array.isArray(value)) return value.map(within);
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, within(each)]));
  };
  const isToCome = (text: string): boolean =>
    text.length <= 60 && Stamp.safeParse(text).success && instantOf(text) > now() + FUTURE_TOLERANCE_MS;
  return (value) => within(value) as typeof value;
}
