import { z } from 'zod';

/**
 * What an item says of a term, in a form that is small enough for thousands of items to be kept where their texts are not:
 * `[key, count, salience, offset of the term, the term as it stands there, the words around it]`.
 */
export const Excerpt = z.tuple([
  z.string(),
  z.int().positive(),
  z.number().positive(),
  z.int().nonnegative(),
  z.string(),
  z.string(),
]);
export type Excerpt = z.infer<typeof Excerpt>;
