import { z } from 'zod';
import { Id, Instant } from './ids';

export const Mail = z.string().trim().toLowerCase().pipe(z.email().max(254));
/** NIST SP 800-63B asks for 8 characters at least; 12 is ours. The upper bound keeps hashing cheap. */
const Passphrase = z.string().min(12, 'passphrase-too-short').max(256);
/** A passphrase that is given to prove who is there: whatever it is, it is only compared. */
const GivenPassphrase = z.string().min(1).max(256);
/** What was told once and is typed in: a set-up code, an invitation, a code by mail. */
const Code = z.string().trim().min(1, 'code-missing').max(50);

/** GET /api/setup: what the sign-in screen needs to know before anybody has signed in. */
export const Setup = z.object({
  needsFirstAccount: z.boolean(),
  /** Whether this server can send a code to who has forgotten their passphrase. */
  sendsMail: z.boolean().default(false),
  /** The demo's account, shown only by a server started as the demo. */
  demo: z.object({ mail: z.string(), passphrase: z.string(), smallWeb: z.string() }).nullable(),
});
export type Setup = z.infer<typeof Setup>;

/** POST /api/session */
export const SignIn = z.object({ mail: Mail, passphrase: GivenPassphrase });
/** POST /api/accounts: the first account of an empty library, or one that was invited. */
export const NewAccount = z.object({
  mail: Mail,
  passphrase: Passphrase,
  name: z.string().trim().min(1).max(100),
  /** Printed where the server was started, or told by who invites. */
  code: Code,
});

export const Account = z.object({ id: Id, mail: z.string(), name: z.string() });
export type Account = z.infer<typeof Account>;

/** POST /api/reset: a code for who has forgotten their passphrase. */
export const CodeWish = z.object({ mail: Mail });
/** POST /api/reset/passphrase: another passphrase, by that code. */
export const PassphraseByCode = z.object({ mail: Mail, code: Code, passphrase: Passphrase });

/** PUT /api/account/passphrase */
export const PassphraseChange = z.object({
  passphrase: GivenPassphrase,
  wanted: Passphrase,
  /** Whether what saves by a token of its own is shut out as well. */
  endTokens: z.boolean().default(false),
});
export type PassphraseChange = z.infer<typeof PassphraseChange>;
/** PUT /api/account/passkeys-only: whether the passphrase alone opens the account no more. */
export const PasskeysOnly = z.object({ passphrase: GivenPassphrase, wanted: z.boolean() });
export type PasskeysOnly = z.infer<typeof PasskeysOnly>;
/** POST /api/account/passkeys/options and POST /api/account/erase: who asks must show that they are there. */
export const PassphraseAgain = z.object({ passphrase: GivenPassphrase });

/** A session, as the reader whose it is sees it. */
export const Session = z.object({
  id: Id,
  /** By what the browser says of itself: `Firefox on Linux`. */
  device: z.string(),
  /** The network address that it was last used from; empty when that is not known. */
  place: z.string(),
  signedInAt: Instant,
  lastUsedAt: Instant,
  /** Whether it is the one that asks. */
  isThis: z.boolean(),
});
export type Session = z.infer<typeof Session>;

/** What opens an account without its passphrase (W3C Web Authentication). */
export const Passkey = z.object({ id: Id, name: z.string(), madeAt: Instant, lastUsedAt: Instant.nullable() });
export type Passkey = z.infer<typeof Passkey>;

/** What the browser's authenticator answered; the package that verifies it reads it closer. */
export const Credential = z.looseObject({ id: z.string().max(2000), response: z.looseObject({}) });
/** What the browser's authenticator is asked. */
export const PasskeyOptions = z.object({ ticket: z.string(), options: z.looseObject({ challenge: z.string() }) });
/** POST /api/account/passkeys */
export const NewPasskey = z.object({
  ticket: z.string().max(100),
  name: z.string().trim().min(1, 'passkey-without-name').max(100),
  credential: Credential,
});
/** POST /api/session/passkey */
export const PasskeySignIn = z.object({ ticket: z.string().max(100), credential: Credential });

/** Lets somebody make an account of their own on this server, once. */
export const Invitation = z.object({ id: Id, madeAt: Instant, expiresAt: Instant });
export type Invitation = z.infer<typeof Invitation>;
/** POST /api/account/invitations; the code is told once. */
export const MadeInvitation = z.object({ invitation: Invitation, code: z.string() });

/** What is written down of what was done with an account. */
export const AccountEventKind = z.enum([
  'account-made',
  'signed-in',
  'signed-in-by-passkey',
  'wrong-passphrase',
  'passphrase-without-passkey',
  'session-ended',
  'passphrase-changed',
  'passphrase-by-code',
  'code-asked',
  'passkey-added',
  'passkey-removed',
  'passkeys-only',
  'passphrase-opens',
  'token-made',
  'token-revoked',
  'invited',
  'archive-taken',
  'dossier-handed-on',
  'podcast-made',
]);
export type AccountEventKind = z.infer<typeof AccountEventKind>;

export const AccountEvent = z.object({
  at: Instant,
  kind: AccountEventKind,
  device: z.string(),
  place: z.string(),
  /** Which token, passkey or device; null where there is only one. */
  about: z.string().nullable(),
});
export type AccountEvent = z.infer<typeof AccountEvent>;

/** A page that was loaded before an update has no words for what came with it: that is left out, and the rest shown. */
const known = (events: unknown): unknown =>
  Array.isArray(events) ? events.filter((event) => AccountEvent.safeParse(event).success) : events;

/** GET /api/account: what a reader can see of their own account. */
export const AccountOverview = z.object({
  sessions: z.array(Session),
  passkeys: z.array(Passkey),
  /** Whether the passphrase alone does not open the account. */
  passkeysOnly: z.boolean(),
  /** The newest first. */
  events: z.preprocess(known, z.array(AccountEvent)),
  /** What the server keeps of this reader's. */
  kept: z.object({
    items: z.number().int(),
    pictureBytes: z.number().int(),
    /** Beyond it texts come without pictures; null for no bound. */
    pictureQuotaBytes: z.number().nullable(),
  }),
  mayInvite: z.boolean(),
  invitations: z.array(Invitation),
});
export type AccountOverview = z.infer<typeof AccountOverview>;

/** Of the routes below /api/account that take something of the account's away. */
export const AccountPartParams = z.object({ id: Id });
