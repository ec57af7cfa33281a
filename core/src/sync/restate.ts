import { NEVER } from '../model';
import { type Mutation, type Records, REGISTRY, type Registry } from '../records';

/**
 * Records as the changes that make them: what a device sends to a server that was set back, so that it learns again what
 * it has forgotten. Each value goes with the stamp that it has, so that what the server knows better stays as it is there.
 *
 * Without the records that only point at another, and without what the server alone writes.
 *
 * @param newId gives ids for the changes
 */
export function restated(known: Partial<Records>, newId: () => string, registry: Registry = REGISTRY): Mutation[] {
  const base = (stamp = NEVER) => ({ id: newId(), stamp });
  return registry.kinds.flatMap((kind) =>
    (known[kind.plural] ?? []).flatMap((record) => kind.restate(record, base) as Mutation[]),
  );
}

/**
 * A record in which one stamp has become another: that of a change which the server took as of its own time.
 *
 * @returns the record itself when nothing in it has that stamp
 */
export function restamped<Record>(record: Record, from: string, to: string): Record {
  if (typeof record !== 'object' || record === null) return record;
  const parts = Object.entries(record).map(([name, value]: [string, unknown]) => {
    const made = name === 'at' && value === from ? to : restamped(value, from, to);
    return [name, made, made !== value] as const;
  });
  if (!parts.some(([, , isChanged]) => isChanged)) return record;
  return (
    Array.isArray(record)
      ? parts.map(([, value]) => value)
      : Object.fromEntries(parts.map(([name, value]) => [name, value]))
  ) as Record;
}
