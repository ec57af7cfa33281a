import { z } from 'zod';
import { NEVER, Stamp } from './ids';

/** A value with the stamp of its last change: of two, the later one holds. */
export const stamped = <Value extends z.ZodType>(value: Value) => z.object({ value, at: Stamp });

/** A register that records from before it was thought of do not have. */
export const stampedSince = <Value extends z.ZodType>(value: Value, otherwise: z.output<Value>) => {
  const register = stamped(value);
  return register.default({ value: otherwise, at: NEVER } as z.output<typeof register>);
};
