import { withinBounds, type Item as ItemRecord } from '@dorvel/core/model';
import { Item, wellFormedWithin } from '@dorvel/core/model';
import { newItem } from '@dorvel/core/sync';
import { z } from 'zod';

/** A record that would not be read again. `message` says of the reader's own words what does not fit. */
export class Unstorable extends Error {
  override readonly name = 'Unstorable';
}

type Path = readonly PropertyKey[];

/**
 * A record as it may be stored. Other people's words in it are cut to what the record allows; the reader's own never
 * are.
 *
 * @param isOthers says which parts are other people's
 * @throws Unstorable when it does not fit all the same
 */
export function storable<Schema extends z.ZodType>(
  schema: Schema,
  record: unknown,
  isOthers: (path: Path) => boolean = () => false,
): z.output<Schema> {
  const bounded = withinBounds(schema, record, isOthers);
  if (!bounded.ok) throw new Unstorable(bounded.says);
  return bounded.record;
}

/** An item as it may be stored: what its page says of itself is other people's. @throws Unstorable */
export function storableItem(item: ItemRecord): ItemRecord {
  return storable(Item, { ...item, capture: wellFormedWithin(item.capture) }, ([part]) => part === 'capture');
}

/**
 * A stored record, brought within its bounds when it is not: what was stored before they were held, or by another
 * version. One that cannot be read at all is null, so that it stands in nobody's way; `npm run doctor` tells of it.
 */
export function readStored<Schema extends z.ZodType>(
  schema: Schema,
  record: unknown,
): z.output<Schema> | null {
  const bounded = withinBounds(schema, record);
  return bounded.ok ? bounded.record : null;
}

/** The least that makes an item: what must never be lost. */
const Kernel = z.object({ id: z.uuid(), address: z.string().min(1) });

/** A stored item. Of one that cannot be read at all the address is kept, and the item says so. */
export function readStoredItem(record: unknown): ItemRecord | null {
  const item = readStored(Item, record);
  const kernel = item ? null : Kernel.safeParse(record).data;
  if (!kernel) return item;
  const base = { id: kernel.id, itemId: kernel.id, stamp: '000000000-0000-0' };
  const address = URL.canParse(kernel.address) ? kernel.address : `https://unreadable.invalid/${kernel.id}`;
  const bare = newItem({ ...base, type: 'save', address, savedAt: 0 });
  const says = 'What was kept of this item cannot be read any more. The address is kept: fetch it again.';
  return readStored(Item, { ...bare, capture: { ...bare.capture, state: 'failed', says } });
}

/** Those that can be read of many. */
export function readStoredItems(rows: readonly { record: unknown }[]): ItemRecord[] {
  return rows.flatMap(({ record }) => readStoredItem(record) ?? []);
}
