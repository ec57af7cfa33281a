import { z } from 'zod';

/** A client-made identifier: UUID version 7 (RFC 9562), so that ids sort by the time they were made. */
export const Id = z.uuid();

/** Lower-case hexadecimal SHA-256 of a file's bytes: the name of a picture on our own origin. */
export const ContentHash = z.string().regex(/^[0-9a-f]{64}$/);

/** The end of the year 9999: no calendar shows more, and past the year 275760 there are no dates at all (ECMA-262, 21.4.1.1). */
export const LAST_INSTANT = Date.UTC(9999, 11, 31, 23, 59, 59, 999);

/** Milliseconds since 1970-01-01T00:00Z. */
export const Instant = z.number().int().nonnegative().max(LAST_INSTANT);

/** An address as a reader or a page gives it has at most this many characters. */
export const MAX_WRITTEN_ADDRESS_LENGTH = 8192;
/** As it is stored: percent codes make up to nine characters of one (RFC 3986, 2.1; UTF-8). */
export const MAX_ADDRESS_LENGTH = 9 * MAX_WRITTEN_ADDRESS_LENGTH;

/** A calendar day where the reader is: `2026-11-24`. Days sort as strings. */
export const Day = z.iso.date();

/** A fraction from 0 to 1. */
export const Fraction = z.number().min(0).max(1);

/** A hybrid logical clock stamp as core/sync writes it; stamps sort as strings. */
export const Stamp = z.string().regex(/^[0-9a-z]{9}-[0-9a-z]{4}-[0-9a-z-]{1,36}$/);
export type Stamp = z.infer<typeof Stamp>;

/** The stamp of a field nobody has touched: older than any real one. */
export const NEVER: Stamp = '000000000-0000-0';

/** The wall-clock time in a stamp, in milliseconds since 1970-01-01T00:00Z; 0 for a field nobody has touched. */
export function instantOf(stamp: Stamp): number {
  return parseInt(stamp.slice(0, 9), 36);
}

/** Of a stamp, what is before the device that gave it. */
const TIME_LENGTH = '000000000-0000-'.length;

/** The device that gave a stamp. */
export function deviceOf(stamp: Stamp): string {
  return stamp.slice(TIME_LENGTH);
}

/** The same time as that of another device. */
export function asGivenBy(device: string, stamp: Stamp): Stamp {
  return stamp.slice(0, TIME_LENGTH) + device;
}
