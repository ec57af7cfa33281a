import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { compileDossier, factsTable, inOrder, MAX_FOUND } from '@dorvel/core/dossier';
import type { HandedOn } from '@dorvel/core/formats';
import { type DossierEntry, instantOf, type Item, type PublicationAccess } from '@dorvel/core/model';
import { dossierKind, entryKind, highlightKind, noteKind } from '@dorvel/core/records';
import { find, readQuery } from '@dorvel/core/search';
import { hash, verify } from '@node-rs/argon2';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Database } from '../db/open';
import { accounts, items, pictures, publications } from '../db/schema';
import type { FindableLibrary } from '../library/findable';
import { recordsIn } from '../library/records';
import { readStoredItems } from '../library/stored';

/** 24 bytes: 192 random bits. */
const SECRET_BYTES = 24;
const KEPT_MS = 5 * 60_000;
/** So many ids are asked for at once: SQLite binds a bounded number of values. */
const AT_ONCE = 500;

export type PublicationRow = typeof publications.$inferSelect;

/** A dossier as it is now, ready to be handed on. */
export interface OpenedDossier {
  handedOn: HandedOn;
  entries: readonly DossierEntry[];
  /** The same with its facts, whether or not others are shown them. */
  withFacts: HandedOn;
  /** The pictures that others may have: those that were put in, and the one in front. */
  pictures: ReadonlySet<string>;
}

interface ShelfParts {
  findable(accountId: string): FindableLibrary;
  now(): number;
}

export type Dossiers = ReturnType<typeof dossierShelf>;

/** Dossiers as the server hands them on, and the addresses at which it does. */
export function dossierShelf(database: Database, { findable, now }: ShelfParts) {
  /** As they were at a state of their account's library; a search of one may speak of days, so none is kept for long. */
  const opened = new LRUCache<string, OpenedDossier>({ max: 50, ttl: KEPT_MS });
  const mine = (accountId: string, dossierId: string) =>
    and(eq(publications.accountId, accountId), eq(publications.dossierId, dossierId));

  async function itemsById(accountId: string, ids: readonly string[]): Promise<Map<string, Item>> {
    const found = new Map<string, Item>();
    const read = async (wanted: readonly string[]) => {
      for (let at = 0; at < wanted.length; at += AT_ONCE) {
        const rows = await database.read
          .select({ record: items.record })
          .from(items)
          .where(and(eq(items.accountId, accountId), inArray(items.id, wanted.slice(at, at + AT_ONCE))));
        for (const item of readStoredItems(rows)) found.set(item.id, item);
      }
    };
    await read([...new Set(ids)]);
    const standIns = [...found.values()].flatMap(({ capture }) => capture.duplicateOf ?? []);
    await read(standIns.filter((id) => !found.has(id)));
    return found;
  }

  /** Of some pictures those that are this account's: an entry may name any. */
  async function ownPictures(accountId: string, hashes: readonly string[]): Promise<Set<string>> {
    const rows = await database.read
      .select({ hash: pictures.hash })
      .from(pictures)
      .where(and(eq(pictures.accountId, accountId), inArray(pictures.hash, hashes.slice(0, AT_ONCE))));
    return new Set(rows.map((each) => each.hash));
  }

  async function foundFor(accountId: string, written: string): Promise<string[]> {
    const library = findable(accountId);
    const query = readQuery(written, { zoneMinutes: 0, typing: false, paces: {}, now: now() });
    const { by, hits } = await find(query, 'all', library.source, await library.facts(), now());
    return by === 'all' ? hits.slice(0, MAX_FOUND).map(({ id }) => id) : [];
  }

  async function row(accountId: string, dossierId: string): Promise<PublicationRow | null> {
    const [found] = await database.read.select().from(publications).where(mine(accountId, dossierId));
    return found ?? null;
  }

  async function openAnew(accountId: string, dossierId: string, name: string | null): Promise<OpenedDossier | null> {
    const dossier = (await recordsIn(database.read, accountId, dossierKind)).find(({ id }) => id === dossierId);
    if (!dossier || dossier.choices.removed.value) return null;
    const entries = inOrder(await recordsIn(database.read, accountId, entryKind), dossierId);
    const found = new Map<string, string[]>();
    for (const { part, choices } of entries) {
      const written = choices.text.value.trim();
      if (part.kind === 'search' && written !== '') found.set(written, await foundFor(accountId, written));
    }
    const wanted = entries.flatMap(({ part }) => ('itemId' in part ? [part.itemId] : []));
    const byId = await itemsById(accountId, [...wanted, ...[...found.values()].flat()]);
    const item = (id: string) => {
      const own = byId.get(id);
      return own?.capture.duplicateOf ? byId.get(own.capture.duplicateOf) : own;
    };
    const has = (kind: string) => entries.some(({ part }) => part.kind === kind);
    const notes = new Map(
      has('note') ? (await recordsIn(database.read, accountId, noteKind)).map((each) => [each.id, each]) : [],
    );
    const highlights = new Map(
      has('passage') ? (await recordsIn(database.read, accountId, highlightKind)).map((each) => [each.id, each]) : [],
    );
    const compiled = compileDossier(dossier, entries, {
      item,
      highlight: (id) => highlights.get(id),
      note: (id) => notes.get(id),
      found: (written) => found.get(written)?.flatMap((id) => item(id) ?? []) ?? [],
    });
    const { design, accent, typeface, named, withFacts } = dossier.choices;
    const decided = [dossier, ...entries].flatMap(({ choices }) => Object.values(choices));
    const stamps = [...decided, ...dossier.words.introduction, ...dossier.words.closing].map(({ at }) => at);
    // Of the notes in it alone: when anything else was written is nothing to others.
    const noteStamps = entries.flatMap(({ part }) =>
      part.kind === 'note' ? (notes.get(part.noteId)?.versions.map(({ at }) => at) ?? []) : [],
    );
    const table = factsTable(dossier, compiled, entries);
    const handedOn: HandedOn = {
      compiled,
      table: withFacts.value ? table : null,
      owner: named.value ? name : null,
      design: design.value,
      accent: accent.value,
      typeface: typeface.value,
      updatedAt: Math.max(dossier.madeAt, ...[...stamps, ...noteStamps].map(instantOf)),
    };
    const wantedPictures = [
      compiled.lead,
      ...compiled.parts.map((part) => (part.kind === 'picture' ? part.hash : null)),
    ];
    return {
      handedOn,
      entries,
      withFacts: { ...handedOn, table },
      pictures: await ownPictures(
        accountId,
        wantedPictures.filter((each) => each !== null),
      ),
    };
  }

  return {
    row,

    /** @returns null when there is no such dossier, or no longer */
    async open(accountId: string, dossierId: string): Promise<OpenedDossier | null> {
      const [account] = await database.read
        .select({ name: accounts.name, sequence: accounts.sequence })
        .from(accounts)
        .where(eq(accounts.id, accountId));
      const key = `${accountId} ${dossierId} ${account?.sequence ?? 0}`;
      const known = opened.get(key);
      if (known) return known;
      const open = await openAnew(accountId, dossierId, account?.name ?? null);
      if (open) opened.set(key, open);
      return open;
    },

    /** Hands a dossier on at an address, or changes who may see it. @throws Error where a passphrase is wanted and there is none */
    async publish(
      accountId: string,
      dossierId: string,
      { access, passphrase, renew }: { access: PublicationAccess; passphrase: string | null; renew: boolean },
    ): Promise<void> {
      const known = await row(accountId, dossierId);
      const passphraseHash =
        access !== 'passphrase' ? null : passphrase === null ? (known?.passphraseHash ?? null) : await hash(passphrase);
      if (access === 'passphrase' && passphraseHash === null) throw new Error('a passphrase is wanted');
      const secret = renew || !known ? randomBytes(SECRET_BYTES).toString('base64url') : known.secret;
      const set = { secret, access, passphraseHash, withdrawnAt: null };
      await database.write((tx) =>
        tx
          .insert(publications)
          .values({ accountId, dossierId, madeAt: now(), ...set })
          .onConflictDoUpdate({ target: [publications.accountId, publications.dossierId], set }),
      );
    },

    withdraw: (accountId: string, dossierId: string) =>
      database.write((tx) => tx.update(publications).set({ withdrawnAt: now() }).where(mine(accountId, dossierId))),

    async at(secret: string): Promise<PublicationRow | null> {
      const [found] = await database.read.select().from(publications).where(eq(publications.secret, secret));
      return found ?? null;
    },

    listed: () =>
      database.read
        .select()
        .from(publications)
        .where(and(eq(publications.access, 'listed'), isNull(publications.withdrawnAt)))
        .orderBy(asc(publications.madeAt))
        .limit(200),

    isPassphrase: async ({ passphraseHash }: PublicationRow, given: string) =>
      passphraseHash !== null && verify(passphraseHash, given),
  };
}

/** What a browser keeps that has given the passphrase: another one when the passphrase becomes another. */
export const keyOf = ({ secret, passphraseHash }: PublicationRow): string =>
  createHmac('sha256', passphraseHash ?? '')
    .update(secret)
    .digest('base64url');

export function isKeyOf(row: PublicationRow, given: string | undefined): boolean {
  const [own, other] = [keyOf(row), given ?? ''].map((key) => Buffer.from(key));
  return own !== undefined && other?.length === own.length && timingSafeEqual(own, other);
}
