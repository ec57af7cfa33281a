import { z } from 'zod';

/** An hour of the reader's day. */
const Hour = z.int().min(0).max(23);

/** A time zone by its IANA name. */
const Zone = z
  .string()
  .max(64)
  .refine((zone) => {
    try {
      new Intl.DateTimeFormat('en', { timeZone: zone });
      return true;
    } catch (_unknown) {
      return false;
    }
  }, 'not-a-zone');

/** GET /api/reminders: what brings the reader's items before them outside of the app. */
export const Reminders = z.object({
  /** Where letters are sent to; null where this server sends none. */
  mail: z.string().nullable(),
  /** Null while none is wanted. */
  letter: z
    .object({
      hour: Hour,
      /** `2026-11-28`; null before the first. */
      sentOn: z.string().nullable(),
      /** The last one could not be sent; it is tried again. */
      isStuck: z.boolean(),
    })
    .nullable(),
  /** Addresses that nobody can guess; null while there is no feed. */
  feed: z.object({ atom: z.string(), json: z.string() }).nullable(),
});
export type Reminders = z.infer<typeof Reminders>;

/** PUT /api/reminders/letter: at which hour of the reader's day; null for no letter. */
export const LetterWish = z.object({ hour: Hour.nullable(), zone: Zone });
/** POST /api/reminders/letter/now: whether there was anything to be told. */
export const LetterSent = z.object({ isSent: z.boolean() });
/** POST /api/reminders/feed: begins one, or gives it another address. */
export const FeedWish = z.object({ zone: Zone });
