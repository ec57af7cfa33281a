import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

export const accounts = sqliteTable('accounts', {
  id: text().primaryKey(),
  mail: text().notNull().unique(),
  name: text().notNull(),
  passphraseHash: text('passphrase_hash').notNull(),
  /** Whether the passphrase alone does not open it. */
  passkeysOnly: integer('passkeys_only', { mode: 'boolean' }).notNull().default(false),
  createdAt: integer('created_at').notNull(),
  /** Goes up by one with each change in the account's library; devices pull from their cursor. */
  sequence: integer().notNull().default(0),
  /** Who let its reader in; null for the first account, and for those made where the server is. */
  invitedBy: text('invited_by'),
});

export const sessions = sqliteTable(
  'sessions',
  {
    /** SHA-256 of the token in the cookie, so that a stolen database opens no session. */
    tokenHash: text('token_hash').primaryKey(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    createdAt: integer('created_at').notNull(),
    expiresAt: integer('expires_at').notNull(),
    /** The session that this one is to replace, until it is used for the first time. */
    replaces: text(),
    /** Stays the same when the token is replaced: what its reader sees and ends. */
    id: text().notNull(),
    device: text().notNull(),
    /** The network address of the last use. */
    place: text().notNull(),
    signedInAt: integer('signed_in_at').notNull(),
    lastUsedAt: integer('last_used_at').notNull(),
  },
  (table) => [index('sessions_by_account').on(table.accountId)],
);

/** What was done with accounts, for their readers to see. */
export const accountEvents = sqliteTable(
  'account_events',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    at: integer().notNull(),
    /** By core/model's AccountEventKind. */
    kind: text().notNull(),
    device: text().notNull(),
    place: text().notNull(),
    about: text(),
  },
  (table) => [index('account_events_by_account').on(table.accountId, table.id)],
);

/** Codes that let somebody make an account, once. */
export const invitations = sqliteTable('invitations', {
  id: text().primaryKey(),
  /** Who invites. */
  accountId: text('account_id')
    .notNull()
    .references(() => accounts.id, { onDelete: 'cascade' }),
  codeHash: text('code_hash').notNull().unique(),
  madeAt: integer('made_at').notNull(),
  expiresAt: integer('expires_at').notNull(),
});

/** Codes for another passphrase, one an account. */
export const resetCodes = sqliteTable('reset_codes', {
  accountId: text('account_id')
    .primaryKey()
    .references(() => accounts.id, { onDelete: 'cascade' }),
  codeHash: text('code_hash').notNull(),
  madeAt: integer('made_at').notNull(),
  expiresAt: integer('expires_at').notNull(),
});

/** Credentials of W3C Web Authentication. */
export const passkeys = sqliteTable(
  'passkeys',
  {
    id: text().primaryKey(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    /** As the authenticator names it, in base64url. */
    credentialId: text('credential_id').notNull().unique(),
    /** In base64url. */
    publicKey: text('public_key').notNull(),
    /** How often the authenticator says it was used: one that falls back has been copied. */
    counter: integer().notNull(),
    transports: text({ mode: 'json' }).notNull(),
    name: text().notNull(),
    madeAt: integer('made_at').notNull(),
    lastUsedAt: integer('last_used_at'),
  },
  (table) => [index('passkeys_by_account').on(table.accountId)],
);

/** What an authenticator has been asked to sign, until it answers. */
export const challenges = sqliteTable('challenges', {
  ticket: text().primaryKey(),
  challenge: text().notNull(),
  /** Whose passkey is being made; null when somebody signs in. */
  accountId: text('account_id').references(() => accounts.id, { onDelete: 'cascade' }),
  expiresAt: integer('expires_at').notNull(),
});

/** What lets other programs into an account, each for one thing only. */
export const tokens = sqliteTable(
  'tokens',
  {
    id: text().primaryKey(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    /** SHA-256 of the secret, so that a stolen database opens nothing. */
    secretHash: text('secret_hash').notNull().unique(),
    name: text().notNull(),
    scope: text({ enum: ['save', 'extension'] }).notNull(),
    madeAt: integer('made_at').notNull(),
    lastUsedAt: integer('last_used_at'),
  },
  (table) => [index('tokens_by_account').on(table.accountId)],
);

/** What was saved by which token, as long as it may take that back. */
export const tokenSaves = sqliteTable(
  'token_saves',
  {
    tokenId: text('token_id')
      .notNull()
      .references(() => tokens.id, { onDelete: 'cascade' }),
    itemId: text('item_id').notNull(),
    savedAt: integer('saved_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.tokenId, table.itemId] })],
);

/** Of this library as it is stored. One row. */
export const libraries = sqliteTable('libraries', {
  id: integer().primaryKey(),
  /** Another one after each restoring, so that devices know that their cursors mean nothing any more. */
  epoch: text().notNull(),
});

/** Where an account takes mail. */
export const mailboxes = sqliteTable('mailboxes', {
  accountId: text('account_id')
    .primaryKey()
    .references(() => accounts.id, { onDelete: 'cascade' }),
  /** The part before the @, which nobody can guess; shown to its owner, so it is not hashed. */
  local: text().notNull().unique(),
  /** Who may send, in lower case: addresses, or domains beginning with @; empty for everybody. */
  senders: text({ mode: 'json' }).notNull(),
  /** When something was taken by it last. */
  lastUsedAt: integer(),
});

export const items = sqliteTable(
  'items',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    id: text().notNull(),
    /** The account's sequence number at the last change. */
    sequence: integer().notNull(),
    addressKey: text('address_key').notNull(),
    /** Set when this is the same page as another item, which then stands for both. */
    duplicateOf: text('same_as'),
    /** The item as core/model defines it; the columns beside it only serve look-ups. */
    record: text({ mode: 'json' }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.accountId, table.id] }),
    index('items_by_sequence').on(table.accountId, table.sequence),
    index('items_by_address').on(table.accountId, table.addressKey),
  ],
);

export const copies = sqliteTable(
  'copies',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    id: text().notNull(),
    itemId: text('item_id').notNull(),
    madeAt: integer('made_at').notNull(),
    record: text({ mode: 'json' }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.accountId, table.id] }),
    index('copies_by_item').on(table.accountId, table.itemId),
  ],
);

export const feeds = sqliteTable(
  'feeds',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    id: text().notNull(),
    /** The account's sequence number at the last change. */
    sequence: integer().notNull(),
    /** When it is to be looked at again; null when it is not followed any more. */
    dueAt: integer('due_at'),
    /** What is remembered from one look to the next; see feeds.ts. */
    memory: text({ mode: 'json' }).notNull(),
    /** The feed as core/model defines it. */
    record: text({ mode: 'json' }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.accountId, table.id] }),
    index('feeds_by_sequence').on(table.accountId, table.sequence),
    index('feeds_by_due').on(table.dueAt),
  ],
);

/** Records that travel to the devices as they are: of all kinds but items and feeds. */
export const records = sqliteTable(
  'records',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    /** By its name in core/records. */
    kind: text().notNull(),
    id: text().notNull(),
    /** The item that it belongs to, where it belongs to one. */
    itemId: text('item_id'),
    /** The account's sequence number at the last change. */
    sequence: integer().notNull(),
    /** As core/records defines it. */
    record: text({ mode: 'json' }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.accountId, table.kind, table.id] }),
    index('records_by_sequence').on(table.accountId, table.sequence),
    index('records_by_item').on(table.accountId, table.itemId),
  ],
);

/**
 * Changes whose stamps were taken as of now, as they were ahead of all clocks: one that is sent again, since its answer was lost, is to
 * get the same, or it would win over what came after it.
 */
export const restamps = sqliteTable(
  'restamps',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    mutationId: text('mutation_id').notNull(),
    stamp: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.accountId, table.mutationId] })],
);

/** What the text of a copy speaks of, kept as making it takes long; see related.ts. */
export const profiles = sqliteTable(
  'profiles',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    copyId: text('copy_id').notNull(),
    version: integer().notNull(),
    profile: text({ mode: 'json' }).notNull(),
    /** Null when it was made before there were any. */
    excerpts: text({ mode: 'json' }),
  },
  (table) => [primaryKey({ columns: [table.accountId, table.copyId] })],
);

/** Which row of its account's full-text table stands for which item; see findable.ts. */
export const findables = sqliteTable(
  'findables',
  {
    row: integer().primaryKey({ autoIncrement: true }),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    itemId: text('item_id').notNull(),
    /** Of what its words were made: they are made again when it becomes another. */
    key: text().notNull(),
  },
  (table) => [uniqueIndex('findables_by_item').on(table.accountId, table.itemId)],
);

/** Which account may see which picture; the files are named by content and shared. */
export const pictures = sqliteTable(
  'pictures',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    hash: text().notNull(),
    bytes: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.accountId, table.hash] })],
);

export const jobs = sqliteTable(
  'jobs',
  {
    id: text().primaryKey(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    itemId: text('item_id').notNull(),
    state: text({ enum: ['waiting', 'running', 'done', 'failed'] }).notNull(),
    /**
     * Texts that are large or slow wait for one another, and nobody else for them; see capture/extractor.ts. Pictures to be looked
     * at wait beside all of them.
     */
    lane: text({ enum: ['quick', 'long', 'looking'] })
      .notNull()
      .default('quick'),
    /** A text that the reader gave by hand, to be taken instead of the page; null once the job is done. */
    given: text({ mode: 'json' }),
    attempts: integer().notNull().default(0),
    /** How often the server ended while it was running. */
    crashes: integer().notNull().default(0),
    /** The process that runs it, of those that share the database; null while none does. */
    holder: text(),
    /** When it is due; while it is running, when whoever runs it must be taken to be gone. */
    runAt: integer('run_at').notNull(),
    createdAt: integer('created_at').notNull(),
    updatedAt: integer('updated_at').notNull(),
  },
  (table) => [
    index('jobs_by_state').on(table.state, table.runAt),
    index('jobs_by_item').on(table.accountId, table.itemId),
  ],
);

/** Tries that came to nothing, so that who guesses is held up by all processes together, and by one that was begun anew. */
export const tries = sqliteTable('tries', {
  /** Which limit, and whose tries. */
  key: text().primaryKey(),
  hits: integer().notNull(),
  /** When they are counted anew. */
  resetAt: integer('reset_at').notNull(),
});

/** Who of the processes that share a database does what only one of them should. One row. */
export const leaders = sqliteTable('leaders', {
  id: integer().primaryKey(),
  holder: text().notNull(),
  until: integer().notNull(),
});

/** A reader's own podcast: the address by which their Queue can be heard. */
export const podcasts = sqliteTable('podcasts', {
  accountId: text('account_id')
    .primaryKey()
    .references(() => accounts.id, { onDelete: 'cascade' }),
  /** The part of its address that nobody can guess. */
  secret: text().notNull().unique(),
  madeAt: integer('made_at').notNull(),
});

/** What brings an account's items before its reader outside of the app. */
export const reminders = sqliteTable('reminders', {
  accountId: text('account_id')
    .primaryKey()
    .references(() => accounts.id, { onDelete: 'cascade' }),
  /** The reader's time zone, by its IANA name. */
  zone: text().notNull(),
  /** By which the reader reaches this server. */
  origin: text().notNull(),
  /** The hour of the daily letter; null for none. */
  letterHour: integer('letter_hour'),
  /** The reader's day of the last letter. */
  sentOn: text('sent_on'),
  /** Not before; null when the last one was sent. */
  retryAt: integer('retry_at'),
  /** The part of the feed's address that nobody can guess; null for no feed. */
  secret: text().unique(),
});

/** The sounds of a podcast, one an item. */
export const episodes = sqliteTable(
  'episodes',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    itemId: text('item_id').notNull(),
    /** Of what it was made: another copy makes another sound. */
    copyId: text('copy_id').notNull(),
    state: text({ enum: ['waiting', 'running', 'done', 'failed'] }).notNull(),
    progress: real().notNull(),
    bytes: integer(),
    seconds: real(),
    chapters: text({ mode: 'json' }).notNull(),
    /** Why it could not be made; see EpisodeFault. */
    fault: text({ enum: ['no-text', 'unreadable', 'no-voice', 'not-spoken'] }),
    /** With which voice; see VOICE_VERSION. */
    voice: integer().notNull().default(1),
    madeAt: integer('made_at').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.accountId, table.itemId] }),
    index('episodes_by_state').on(table.state, table.madeAt),
  ],
);

/** Dossiers that are, or were, handed on at an address. */
export const publications = sqliteTable(
  'publications',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    dossierId: text('dossier_id').notNull(),
    /** The part of its address that nobody can guess. */
    secret: text().notNull().unique(),
    access: text({ enum: ['listed', 'unlisted', 'passphrase'] }).notNull(),
    /** Argon2; null where no passphrase is asked. */
    passphraseHash: text('passphrase_hash'),
    madeAt: integer('made_at').notNull(),
    /** Since then it is gone, and says so. */
    withdrawnAt: integer('withdrawn_at'),
  },
  (table) => [primaryKey({ columns: [table.accountId, table.dossierId] })],
);
