import { instantOf, type Item } from '../model';

/** What was let go can be brought back for so long; then it is erased. */
export const LET_GO_DAYS = 30;

/** True when an item was let go so long ago that it is to be erased. @param now milliseconds since 1970 */
export function isToBeErased(item: Item, now: number): boolean {
  const { value, at } = item.choices.stage;
  return value === 'let-go' && instantOf(at) + LET_GO_DAYS * 86_400_000 <= now;
}
