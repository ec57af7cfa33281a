import { z } from 'zod';
import { extensible } from './extensible';
import { NEVER, Stamp } from './ids';

/** A value with the stamp of its last change: of two, the later one holds. */
export const stamped = <Value extends z.ZodType>(value: Value) => z.object({ value, at: Stamp });

/** A register that records from before it was thought of do not have. */
export const stampedSince = <Value extends z.ZodType>(value: Value, otherwise: z.output<Value>) => {
  const register = stamped(value);
  return register.default({ value: otherwise, at: NEVER } as z.output<typeof register>);
};

/** A register for each field of a shape. @param since what stands for fields that records from before they were thought of lack */
export const stampedEach = <Shape extends z.ZodRawShape>(
  { shape }: z.ZodObject<Shape>,
  since: Partial<z.output<z.ZodObject<Shape>>> = {},
) =>
  extensible(
    Object.fromEntries(
      Object.entries(shape).map(([field, value]) => [
        field,
        Object.hasOwn(since, field)
          ? stampedSince(value as z.ZodType, since[field as keyof typeof since])
          : stamped(value as z.ZodType),
      ]),
    ) as unknown as {
      [Field in keyof Shape]: ReturnType<typeof stamped<Shape[Field] & z.ZodType>>;
    },
  );
