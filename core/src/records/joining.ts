import { isEqual } from 'es-toolkit/predicate';
import type { Standing } from '../model';
import type { Stored } from './kind';

/**
 * Joins a record from elsewhere with the one that is here.
 *
 * @param merge of the record's kind
 * @param here undefined when it is not here
 * @returns the record as it is to be, and how the two stood: one is not here; they are alike; one has all that the other has, and
 *   more or later; or each has something that the other has not, and both stay
 */
export function join<Record extends Stored>(
  merge: (a: Record, b: Record) => Record,
  here: Record | undefined,
  there: Record,
): { record: Record; standing: Standing } {
  if (!here) return { record: there, standing: 'new' };
  if (isEqual(here, there)) return { record: here, standing: 'same' };
  const record = merge(here, there);
  if (isEqual(record, here)) return { record: here, standing: 'newer-here' };
  return { record, standing: isEqual(record, there) ? 'newer-there' : 'both' };
}
