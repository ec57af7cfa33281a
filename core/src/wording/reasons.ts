import type { Item } from '../model';
import { titleOf } from './item-words';

/** Why two items are near: "both speak of eelgrass, dredging". @param shared terms, weightiest first */
export function sharedInWords(shared: readonly string[]): string {
  return `both speak of ${shared.slice(0, 3).join(', ')}`;
}

/** "as “Larch or oak” and 2 more near to it" */
export function reasonForTag(because: readonly string[], items: readonly Item[]): string {
  const first = items.find(({ id }) => id === because[0]);
  const more = because.length - 1;
  return `as ${first ? `“${titleOf(first)}”` : 'one near to it'}${more > 0 ? ` and ${more} more near to it` : ''}`;
}
