import { z } from 'zod';

/** A place on the Earth, in degrees of WGS 84, and how well it is known. */
export const Place = z.object({
  latitude: z.number().min(-90).max(90),
  longitude: z.number().min(-180).max(180),
  /** In metres: it lies somewhere within that of what is said. */
  within: z.number().nonnegative().max(1_000_000),
});
export type Place = z.infer<typeof Place>;
