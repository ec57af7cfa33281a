import { z } from 'zod';

/**
 * The shape of a record, or of a part of one, that keeps the fields of which this version knows nothing: a tab that was
 * opened before an update must not erase what is written by newer ones. Its type has the known fields only.
 */
export const extensible = <Shape extends z.ZodRawShape>(shape: Shape) =>
  z.looseObject(shape) as unknown as z.ZodObject<Shape>;
