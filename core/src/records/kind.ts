import type { z } from 'zod';
import { Id, NEVER, Stamp } from '../model';

/** What every change carries: its own id, and when it was made. */
export const CHANGE = { id: Id, stamp: Stamp };

/** A change to a record, whatever its kind. */
export interface Change {
  id: string;
  stamp: string;
  type: string;
}

/** A record, whatever its kind. */
export interface Stored {
  id: string;
}

/**
 * A kind of record that travels between the server and the devices. All that is done with records (storing, sending,
 * merging, mending, bringing back) goes by this, so that a new kind is one such value in the registry and no more.
 *
 * `apply` and `merge` are the same on a device and on the server. They make records alike whatever the order in which
 * changes and states arrive, and however often: `merge` is commutative, associative and idempotent, and a change applied
 * twice is applied once. registry.test.ts holds every kind to it.
 */
export interface Kind<Shape extends Stored = Stored, Made extends Change = Change> {
  /** The field's term for one of them, in lower case: `highlight`. */
  name: string;
  /** What many of them are called: their list where they travel, their table on a device. */
  plural: string;
  /** Goes up when the shape changes: devices then fetch those that they have once more. */
  version: number;
  schema: z.ZodType<Shape>;
  /** The changes that can be made to one, told apart by `type`. */
  mutation: z.ZodType<Made>;
  types: readonly Made['type'][];
  /** Fields that hold other people's words, which may be cut to fit; the reader's own never are. */
  others?: readonly string[];
  /** True when there is none without its item. */
  needsItem?: boolean;
  /** The id of the record that a change is about. */
  idOf(change: Made): string;
  /** The item that a record belongs to; null for none. */
  itemIdOf(record: Shape): string | null;
  /** The same record as one of another item, which stands for its own from now on. */
  movedTo?(record: Shape, itemId: string): Shape;
  /** @returns the record after a change; undefined when the change is about one that is not known */
  apply(record: Shape | undefined, change: Made): Shape | undefined;
  /** Joins two states of one record. */
  merge(a: Shape, b: Shape): Shape;
  /** The change that stands for two, when the earlier was never sent; null when both are to be sent. */
  combine?(earlier: Made, later: Made): Made | null;
  /** The changes that make a record, each value with the stamp that it has. */
  restate(record: Shape, base: (stamp?: string) => { id: string; stamp: string }): Made[];
  /** What can be saved of a stored record that is not of this kind any more. */
  rescue?(stored: unknown): Shape | null;
}

type Registers = Readonly<Record<string, { value: unknown; at: string }>>;

/** What was decided about a record, as changes: what was decided at one instant goes in one. */
export function decisions<Made>(registers: object, make: (stamp: string, set: never) => Made): Made[] {
  const byStamp = new Map<string, Record<string, unknown>>();
  for (const [field, { value, at }] of Object.entries(registers as Registers))
    if (at !== NEVER) byStamp.set(at, { ...byStamp.get(at), [field]: value });
  return [...byStamp].map(([stamp, set]) => make(stamp, set as never));
}
