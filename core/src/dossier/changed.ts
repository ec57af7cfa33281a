import type { Item } from '../model';

/** Items whose page says something else than it said before an instant: a newer copy, of another text. @param since milliseconds since 1970 */
export function changedSince(items: readonly Item[], since: number): Item[] {
  return items.filter(({ capture: { copies } }) => {
    const [now] = copies;
    const before = copies.find(({ madeAt }) => madeAt <= since);
    return now !== undefined && before !== undefined && now.madeAt > since && now.hash !== before.hash;
  });
}
