import { z } from 'zod';
import { Id, Instant, Stamp } from '../model';
import { type Records, REGISTRY, type Registry, type Stored } from '../records';

export const PUSH_LIMIT = 200;

/**
 * Goes up when client and server would misunderstand each other. A client says it with every call; to one that is older
 * than the server can serve it is said that it must be loaded again, and what it has to send waits until it is.
 */
export const PROTOCOL = 3;
export const PROTOCOL_HEADER = 'dorvel-protocol';

/**
 * POST /api/sync/push. Mutations are parsed one by one, so that one that cannot be read
 * does not keep back the others: a device never loses what it has queued.
 */
export const PushRequest = z.object({ mutations: z.array(z.unknown()).max(PUSH_LIMIT) });
export const PushResult = z.discriminatedUnion('outcome', [
  /** `stamp` is the one that stands, where the clock of the device was too far ahead for its own to be taken. */
  z.object({ outcome: z.literal('applied'), mutationId: z.string(), stamp: Stamp.optional() }),
  /** The page was already in the library: `itemId` is the item that stands for it. */
  z.object({ outcome: z.literal('already-saved'), mutationId: z.string(), itemId: Id }),
  /** `unknown` when it is about a record that the library does not have: one that was erased, say. */
  z.object({
    outcome: z.literal('refused'),
    mutationId: z.string(),
    detail: z.string(),
    unknown: z.boolean().optional(),
  }),
]);
export type PushResult = z.infer<typeof PushResult>;
/** What every answer of the sync tells of the server itself. */
const ServerSays = {
  /** The server's clock. */
  now: Instant,
  /** Of this library as it is stored; another one after it was restored, when cursors of before mean nothing. */
  epoch: z.string(),
};
export const PushResponse = z.object({
  results: z.array(PushResult),
  cursor: z.number().int(),
  ...ServerSays,
});

/** GET /api/sync/pull?after=N: what changed in the account since sequence number N. */
export const PullQuery = z.object({ after: z.coerce.number().int().nonnegative().default(0) });

/** What every answer to a pull has, beside the records. */
export const PullHead = z.looseObject({
  cursor: z.number().int().nonnegative(),
  more: z.boolean(),
  ...ServerSays,
});

/** What changed in a library, up to a cursor to go on from. */
export interface Page {
  records: Records;
  /** How many records there are of which this client can make nothing: it is older than the server, or they are broken. */
  unread: number;
  cursor: number;
  more: boolean;
  now: number;
  epoch: string;
}

/**
 * The answer to a pull, in which records stand by the plurals of their kinds. Each is read by itself: one that cannot be
 * read must not keep the others from a device.
 */
export const pullResponse = (registry: Registry) =>
  PullHead.transform(({ cursor, more, now, epoch, ...rest }): Page => {
    let unread = 0;
    const records = registry.kinds.map(({ plural, schema }): [string, Stored[]] => {
      const sent = rest[plural];
      const read = (record: unknown) => {
        const parsed = schema.safeParse(record);
        if (!parsed.success) unread++;
        return parsed.success ? [parsed.data] : [];
      };
      return [plural, Array.isArray(sent) ? sent.flatMap(read) : []];
    });
    return { records: Object.fromEntries(records) as unknown as Records, unread, cursor, more, now, epoch };
  });
export const PullResponse = pullResponse(REGISTRY);
