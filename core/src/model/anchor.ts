import { z } from 'zod';
import { Fraction } from './ids';

/**
 * A place in a text that survives another screen width, another typeface and a new extraction:
 * where it was, and what stood there. Offsets are in the plain text of the clean tree (core/text).
 */
export const TextAnchor = z.object({
  /** Index of the leaf block. */
  block: z.number().int().nonnegative(),
  /** Character offset inside that block. */
  char: z.number().int().nonnegative(),
  /** Character offset in the whole plain text. */
  offset: z.number().int().nonnegative(),
  /** The characters that follow the place, at most 64. */
  quote: z.string().max(64),
  /** The characters before it, at most 32. */
  before: z.string().max(32),
  /** Fraction of the text's words above the place. */
  fraction: Fraction,
});
export type TextAnchor = z.infer<typeof TextAnchor>;
