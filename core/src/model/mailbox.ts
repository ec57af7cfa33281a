import { z } from 'zod';
import { Instant } from './ids';

/** Who may send: a mail address, or all of a domain (`@example.org`). */
export const Sender = z
  .string()
  .trim()
  .toLowerCase()
  .max(254)
  .regex(/^[^\s@,]*@[^\s@,.]+(?:\.[^\s@,.]+)+$/, 'not-a-sender');

/** GET /api/mailbox: where the reader can send what is to be saved; null where this server takes no mail. */
export const Mailbox = z.object({
  mailbox: z
    .object({ address: z.string(), senders: z.array(Sender).max(100), lastUsedAt: Instant.nullable() })
    .nullable(),
});
/** PUT /api/mailbox */
export const MailboxChanges = z.object({ senders: z.array(Sender).max(100) });
