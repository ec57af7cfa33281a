import { z } from 'zod';

/** A client-made identifier: UUID version 7 (RFC 9562), so that ids sort by the time they were made. */
export const Id = z.uuid();

/** Lower-case hexadecimal SHA-256 of a file's bytes: the name of a picture on our own origin. */
export const ContentHash = z.string().regex(/^[0-9a-f]{64}$/);

/** Milliseconds since 1970-01-01T00:00Z. */
export const Instant = z.number().int().nonnegative();

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
