import type { Stage } from '@dorvel/core/model';

/** The address of an item in the reader's library. */
export function linkTo(origin: string, id: string, stage: Stage): string {
  const place = stage === 'inbox' || stage === 'queue' ? stage : 'library';
  return `${origin}/${place}/${id}`;
}
