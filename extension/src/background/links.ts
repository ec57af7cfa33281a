import type { Item } from '@dorvel/core/model';

/** The address of an item in the reader's library. */
export function linkTo(origin: string, item: Item): string {
  const stage = item.choices.stage.value;
  const place = stage === 'inbox' || stage === 'queue' ? stage : 'library';
  return `${origin}/${place}/${item.id}`;
}
