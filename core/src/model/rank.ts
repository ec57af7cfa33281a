import { generateKeyBetween } from 'fractional-indexing';
import { z } from 'zod';

/** A rank never needs to be as long as this; see core/dossier, which makes them anew before they get there. */
export const MAX_RANK_LENGTH = 100;

/**
 * A place in an order between any two others, as text that sorts by its code units (fractional indexing: D. Greenspan 2020,
 * "Implementing Fractional Indexing").
 */
export const Rank = z
  .string()
  .max(MAX_RANK_LENGTH)
  .regex(/^[0-9A-Za-z]+$/)
  .refine((rank) => {
    try {
      generateKeyBetween(rank, null);
      return true;
    } catch (_notOne) {
      return false;
    }
  }, 'not-a-rank');
