import { NEVER } from '../model';

/** A register that nobody has touched. */
export const untouched = <Value>(value: Value) => ({ value, at: NEVER });

/** Of two states of a register, the later one. */
export function latest<Register extends { at: string }>(a: Register, b: Register): Register {
  return a.at >= b.at ? a : b;
}

/** Joins two states of a set of registers: each field by its latest stamp. What only one of them has stays. */
export function mergeRegisters<Registers extends object>(a: Registers, b: Registers): Registers {
  const joined = { ...a } as Record<string, { at: string }>;
  for (const [field, register] of Object.entries(b) as [string, { at: string }][])
    joined[field] = Object.hasOwn(a, field) ? latest(joined[field] ?? register, register) : register;
  return joined as Registers;
}

/** Registers of which some were set. */
export function withChanges<Registers extends object>(
  registers: Registers,
  set: Readonly<Record<string, unknown>>,
  stamp: string,
): Registers {
  const changed = Object.entries(set)
    .filter(([, value]) => value !== undefined)
    .map(([field, value]) => [field, { value, at: stamp }]);
  return { ...registers, ...(Object.fromEntries(changed) as Partial<Registers>) };
}

/** The stamps of a record's registers: what a reader decides wins over what it replaces, whatever the clock of who wrote that. */
export function stampsOf(registers: object): string[] {
  return Object.values(registers as Record<string, { at: string }>).map(({ at }) => at);
}
