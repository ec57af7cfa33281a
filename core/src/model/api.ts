import { z } from 'zod';
import { Activity } from './activity';
import { Id } from './ids';
import { Item } from './item';

export const Mail = z.string().trim().toLowerCase().pipe(z.email().max(254));
/** NIST SP 800-63B asks for 8 characters at least; 12 is ours. The upper bound keeps hashing cheap. */
const Passphrase = z.string().min(12, 'Use at least 12 characters.').max(256);

/** GET /api/setup: what the sign-in screen needs to know before anybody has signed in. */
export const Setup = z.object({
  needsFirstAccount: z.boolean(),
  /** The demo's account, shown only by a server started as the demo. */
  demo: z.object({ mail: z.string(), passphrase: z.string(), smallWeb: z.string() }).nullable(),
});
export type Setup = z.infer<typeof Setup>;

/** POST /api/session */
export const SignIn = z.object({ mail: Mail, passphrase: z.string().min(1).max(256) });
/** POST /api/accounts: the first account of an empty library. */
export const NewAccount = z.object({
  mail: Mail,
  passphrase: Passphrase,
  name: z.string().trim().min(1).max(100),
});

export const Account = z.object({ id: Id, mail: z.string(), name: z.string() });
export type Account = z.infer<typeof Account>;

export const PUSH_LIMIT = 200;

/**
 * POST /api/sync/push. Mutations are parsed one by one, so that one that cannot be read
 * does not keep back the others: a device never loses what it has queued.
 */
export const PushRequest = z.object({ mutations: z.array(z.unknown()).max(PUSH_LIMIT) });
export const PushResult = z.discriminatedUnion('outcome', [
  z.object({ outcome: z.literal('applied'), mutationId: z.string() }),
  /** The page was already in the library: `itemId` is the item that stands for it. */
  z.object({ outcome: z.literal('already-saved'), mutationId: z.string(), itemId: Id }),
  z.object({ outcome: z.literal('refused'), mutationId: z.string(), detail: z.string() }),
]);
export type PushResult = z.infer<typeof PushResult>;
export const PushResponse = z.object({ results: z.array(PushResult), cursor: z.number().int() });

/** GET /api/sync/pull?after=N: what changed in the account since sequence number N. */
export const PullQuery = z.object({ after: z.coerce.number().int().nonnegative().default(0) });
export const PullResponse = z.object({
  items: z.array(Item),
  activities: z.array(Activity).default([]),
  cursor: z.number().int().nonnegative(),
  more: z.boolean(),
});

export const CopyParams = z.object({ id: Id });
export const PictureParams = z.object({ file: z.string().regex(/^[0-9a-f]{64}\.webp$/) });
export const Health = z.object({ status: z.literal('ok'), jobsOpen: z.number().int() });
