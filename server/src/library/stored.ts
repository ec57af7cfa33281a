import { type Item, wellFormedWithin, withinBounds } from '@dorvel/core/model';
import { type Change, itemKind, type Kind, type Stored } from '@dorvel/core/records';
import type { z } from 'zod';

/** A record that would not be read again. */
export class Unstorable extends Error {
  override readonly name = 'Unstorable';
  constructor(
    /** What of the reader's own words does not fit. */
    readonly issues: z.core.$ZodIssue[],
  ) {
    super(issues.map(({ message }) => message).join('; '));
  }
}

/**
 * A record as it may be stored. Other people's words in it are cut to what the record allows; the reader's own never
 * are.
 *
 * @throws Unstorable when it does not fit all the same
 */
export function storable<Record extends Stored, Made extends Change>(kind: Kind<Record, Made>, record: Record): Record {
  const others = kind.others ?? [];
  const parts = Object.entries(record).map(([field, value]): [string, unknown] => [
    field,
    others.includes(field) ? wellFormedWithin(value) : value,
  ]);
  const bounded = withinBounds(kind.schema, Object.fromEntries(parts), ([part]) => others.includes(String(part)));
  if (!bounded.ok) throw new Unstorable(bounded.issues);
  return bounded.record;
}

/**
 * What is stored, brought within its bounds when it is not: what was stored before they were held, or by another
 * version. What cannot be read at all is null, so that it stands in nobody's way; `npm run doctor` tells of it.
 */
export function readStored<Schema extends z.ZodType>(schema: Schema, stored: unknown): z.output<Schema> | null {
  const bounded = withinBounds(schema, stored);
  return bounded.ok ? bounded.record : null;
}

/** A stored record of a kind, or what can be saved of it; null when that is nothing. */
export function readRecord<Record extends Stored, Made extends Change>(
  kind: Kind<Record, Made>,
  stored: unknown,
): Record | null {
  return readStored(kind.schema, stored) ?? kind.rescue?.(stored) ?? null;
}

/** A stored item. Of one that cannot be read at all the address is kept, and the item says so. */
export function readStoredItem(stored: unknown): Item | null {
  return readRecord(itemKind, stored);
}

/** Those that can be read of many. */
export function readStoredItems(rows: readonly { record: unknown }[]): Item[] {
  return rows.flatMap(({ record }) => readStoredItem(record) ?? []);
}
