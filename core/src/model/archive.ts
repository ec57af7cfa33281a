import { z } from 'zod';

/** How a record of an archive stands to the one that is here; see core/records/joining. */
export const Standing = z.enum(['new', 'same', 'newer-here', 'newer-there', 'both']);
export type Standing = z.infer<typeof Standing>;

/**
 * Why something of an archive cannot be brought in: it cannot be read; its address is none; its bytes are not what their name
 * says; what it belongs to is neither here nor there.
 */
export const ArchiveFaultCode = z.enum(['unreadable', 'address', 'damaged', 'belongs-nowhere']);
export type ArchiveFaultCode = z.infer<typeof ArchiveFaultCode>;

const Count = z.number().int().nonnegative();
/** Of so many things that differ, or cannot be brought in, the names are told. */
export const MOST_TOLD = 20;

/** What an archive has for a library: how much of each kind, and what differs. Before it is brought in, and after, the same. */
export const ArchiveLook = z.object({
  /** When it was made, and of whose library, as it says. */
  madeAt: z.string().max(40).nullable(),
  name: z.string().max(200).nullable(),
  /** By the plurals of the kinds; texts and pictures, which never differ, beside them. */
  kinds: z.array(z.object({ plural: z.string(), standings: z.record(Standing, Count) })),
  differing: z.array(z.object({ plural: z.string(), title: z.string(), standing: Standing })).max(MOST_TOLD),
  faults: z.array(z.object({ plural: z.string(), name: z.string(), fault: ArchiveFaultCode })).max(MOST_TOLD),
  faultCount: Count,
});
export type ArchiveLook = z.infer<typeof ArchiveLook>;

/** A line of what is answered while an archive is gone through: how far, in bytes; or, as the last, what there is. */
export const ArchiveStep = z.union([
  z.object({ passed: Count, of: Count }),
  z.object({ look: ArchiveLook }),
  z.object({ says: z.string() }),
]);
export type ArchiveStep = z.infer<typeof ArchiveStep>;

/** GET /api/archive/nightly: what the server writes into a folder of its own each night; null where it writes none. */
export const NightlyArchive = z.object({
  nightly: z
    .object({
      /** Milliseconds since 1970; null before the first. */
      lastAt: z.number().nullable(),
      bytes: Count.nullable(),
      keptDays: z.number().int().positive(),
      /** The last one could not be written; it is tried again each hour. */
      isStuck: z.boolean(),
    })
    .nullable(),
});
export type NightlyArchive = z.infer<typeof NightlyArchive>;
