import { randomBytes } from 'node:crypto';
import { inOrder } from '@dorvel/core/dossier';
import { VOICE_VERSION } from '@dorvel/core/listening';
import { Chapter, type Dossier, EpisodeFault, type Item } from '@dorvel/core/model';
import { byQueueOrder } from '@dorvel/core/queue';
import { dossierKind, entryKind } from '@dorvel/core/records';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { and, desc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import type { Request, Response } from 'express';
import { z } from 'zod';
import type { Database } from '../db/open';
import { copies, episodes, items, podcasts } from '../db/schema';
import type { MadeFiles } from '../files/made-files';
import { recordsIn } from '../library/records';
import { readStoredItem, readStoredItems } from '../library/stored';
import type { Speaker } from './speaker';

/** How often the Queue is looked at for what is new in it. */
const LOOK_MS = 30_000;
/** 24 bytes: 192 random bits. */
const SECRET_BYTES = 24;

/** An episode that is to be made. */
export interface EpisodeJob {
  /** For the runner's log. */
  id: string;
  accountId: string;
  itemId: string;
  copyId: string;
}

/** An episode with its item. */
export interface Episode {
  item: Item;
  copyId: string;
  state: (typeof episodes.$inferSelect)['state'];
  progress: number;
  bytes: number | null;
  seconds: number | null;
  chapters: Chapter[];
  fault: EpisodeFault | null;
  voice: number;
  madeAt: number;
}

/** The readers' own podcasts: which there are, what is in them, and the making of their sounds. */
export function podcastShelf(
  database: Database,
  sounds: MadeFiles,
  speaker: Speaker,
  now: () => number,
  shortestLookMs = LOOK_MS,
) {
  let lookedAt = 0;
  const making = new Map<string, AbortController>();
  const one = (accountId: string, itemId: string) =>
    and(eq(episodes.accountId, accountId), eq(episodes.itemId, itemId));
  /** @param voice with which it was made; the first had no number yet */
  const nameOf = (accountId: string, itemId: string, copyId: string, voice: number) =>
    `podcasts/${accountId}/${itemId}-${copyId}${voice === 1 ? '' : `-${voice}`}.mp3`;

  async function queueOf(accountId: string): Promise<Item[]> {
    const rows = await database.read
      .select({ record: items.record })
      .from(items)
      .where(
        and(
          eq(items.accountId, accountId),
          isNull(items.duplicateOf),
          sql`json_extract(${items.record}, '$.choices.stage.value') = 'queue'`,
        ),
      );
    return readStoredItems(rows).sort(byQueueOrder);
  }

  /** Dossiers that are to be heard. */
  const heardDossiers = async (accountId: string): Promise<Dossier[]> =>
    (await recordsIn(database.read, accountId, dossierKind)).filter(
      ({ choices }) => choices.heard.value && !choices.removed.value,
    );

  /** The items of dossiers, each in its order. */
  async function itemsOfDossiers(accountId: string, dossierIds: readonly string[]): Promise<Item[]> {
    if (dossierIds.length === 0) return [];
    const entries = await recordsIn(database.read, accountId, entryKind);
    const ids = dossierIds
      .flatMap((id) => inOrder(entries, id))
      .flatMap(({ part }) => (part.kind === 'item' ? [part.itemId] : []));
    const found: Item[] = [];
    for (const id of new Set(ids)) {
      const [row] = await database.read
        .select({ record: items.record })
        .from(items)
        .where(and(eq(items.accountId, accountId), eq(items.id, id), isNull(items.duplicateOf)));
      const item = row && readStoredItem(row.record);
      if (item) found.push(item);
    }
    return found;
  }

  /** The Queue, and what is in dossiers that are to be heard. */
  async function toBeHeard(accountId: string): Promise<Item[]> {
    const dossiers = await heardDossiers(accountId);
    return [
      ...(await queueOf(accountId)),
      ...(await itemsOfDossiers(
        accountId,
        dossiers.map(({ id }) => id),
      )),
    ];
  }

  /** Brings the episodes in step with what is to be heard: what is new waits to be made, what has left it goes. */
  async function followAll(accountId: string): Promise<void> {
    const wanted = new Map(
      (await toBeHeard(accountId)).flatMap((item) =>
        item.capture.page?.copyId ? [[item.id, item.capture.page.copyId] as const] : [],
      ),
    );
    const known = await database.read.select().from(episodes).where(eq(episodes.accountId, accountId));
    const stale = known.filter(({ itemId, copyId }) => wanted.get(itemId) !== copyId);
    const there = new Set(known.filter((each) => !stale.includes(each)).map(({ itemId }) => itemId));
    const fresh = [...wanted].filter(([itemId]) => !there.has(itemId));
    if (stale.length === 0 && fresh.length === 0) return;
    for (const { itemId } of stale) making.get(`${accountId} ${itemId}`)?.abort();
    await database.write(async (tx) => {
      const gone = stale.map(({ itemId }) => itemId);
      if (gone.length > 0)
        await tx.delete(episodes).where(and(eq(episodes.accountId, accountId), inArray(episodes.itemId, gone)));
      if (fresh.length > 0)
        await tx
          .insert(episodes)
          .values(
            fresh.map(([itemId, copyId], at) => ({
              accountId,
              itemId,
              copyId,
              state: 'waiting' as const,
              progress: 0,
              chapters: [],
              fault: null,
              voice: VOICE_VERSION,
              // In the order of the Queue, its top the newest: so podcast apps show it as it stands.
              madeAt: now() - at,
            })),
          )
          // Two who look at the same time, the app and a podcast app say, find the same to be new.
          .onConflictDoNothing();
    });
    for (const { itemId, copyId, voice } of stale) await sounds.remove(nameOf(accountId, itemId, copyId, voice));
  }

  async function haveMadeAnew(accountId: string, which: readonly { itemId: string; copyId: string }[]): Promise<void> {
    await database.write(async (tx) => {
      for (const { itemId, copyId } of which)
        await tx
          .update(episodes)
          .set({ state: 'waiting', voice: VOICE_VERSION, progress: 0, bytes: null, seconds: null, fault: null })
          .where(and(one(accountId, itemId), eq(episodes.copyId, copyId)));
    });
  }

  /**
   * Brings the episodes in step, as somebody asks for them, and has those made anew that have the voice of before. Not sooner: it
   * would be hours of work for episodes that nobody hears.
   */
  async function follow(accountId: string): Promise<void> {
    await followAll(accountId);
    const old = await database.read
      .select({ itemId: episodes.itemId, copyId: episodes.copyId, voice: episodes.voice })
      .from(episodes)
      .where(
        and(
          eq(episodes.accountId, accountId),
          ne(episodes.voice, VOICE_VERSION),
          inArray(episodes.state, ['done', 'failed']),
        ),
      );
    if (old.length === 0) return;
    await haveMadeAnew(accountId, old);
    for (const { itemId, copyId, voice } of old) await sounds.remove(nameOf(accountId, itemId, copyId, voice));
  }

  async function episodesOf(accountId: string, wanted: readonly Item[]): Promise<Episode[]> {
    const rows = await database.read.select().from(episodes).where(eq(episodes.accountId, accountId));
    const byItem = new Map(rows.map((row) => [row.itemId, row]));
    return wanted.flatMap((item): Episode[] => {
      const row = byItem.get(item.id);
      return row ? [{ ...row, item, chapters: z.array(Chapter).parse(row.chapters) }] : [];
    });
  }

  const stopAll = (accountId: string) => {
    for (const [key, controller] of making) if (key.startsWith(accountId)) controller.abort();
  };

  return {
    async of(accountId: string): Promise<{ secret: string; madeAt: number } | null> {
      const [row] = await database.read.select().from(podcasts).where(eq(podcasts.accountId, accountId));
      return row ?? null;
    },

    /** Whose podcast is at an address; null when there is none. */
    async at(secret: string): Promise<string | null> {
      const [row] = await database.read.select().from(podcasts).where(eq(podcasts.secret, secret));
      return row?.accountId ?? null;
    },

    /** Begins a podcast, or gives the one there is another address; who has the one before hears nothing more. */
    async make(accountId: string): Promise<void> {
      const secret = randomBytes(SECRET_BYTES).toString('base64url');
      const row = { accountId, secret, madeAt: now() };
      await database.write((tx) =>
        tx.insert(podcasts).values(row).onConflictDoUpdate({ target: podcasts.accountId, set: { secret } }),
      );
      await followAll(accountId);
    },

    /** Ends it, with all its sounds. */
    async end(accountId: string): Promise<void> {
      stopAll(accountId);
      await database.write(async (tx) => {
        await tx.delete(podcasts).where(eq(podcasts.accountId, accountId));
        await tx.delete(episodes).where(eq(episodes.accountId, accountId));
      });
      await sounds.removeAll(`podcasts/${accountId}`);
    },

    follow,

    /** In the order of the Queue. */
    episodesOf: async (accountId: string): Promise<Episode[]> => episodesOf(accountId, await queueOf(accountId)),

    /** The episode of an item, wherever it is heard; null when there is none. */
    episodeOf: async (accountId: string, itemId: string): Promise<Episode | null> =>
      (await episodesOf(accountId, await toBeHeard(accountId))).find(({ item }) => item.id === itemId) ?? null,

    /** A dossier with its episodes in its order; null when it is not to be heard. */
    async dossierOf(accountId: string, dossierId: string): Promise<{ title: string; episodes: Episode[] } | null> {
      const dossier = (await heardDossiers(accountId)).find(({ id }) => id === dossierId);
      if (!dossier) return null;
      const heard = await episodesOf(accountId, await itemsOfDossiers(accountId, [dossierId]));
      return { title: dossier.choices.title.value, episodes: heard };
    },

    /**
     * Answers a request with the sound of an episode.
     *
     * @returns false when it is not there any more, as after a restore, for backups have no sounds: it waits to be made again then
     */
    async send(
      accountId: string,
      { item, copyId, voice }: Pick<Episode, 'item' | 'copyId' | 'voice'>,
      request: Request,
      response: Response,
    ): Promise<boolean> {
      const isSent = await sounds.send(nameOf(accountId, item.id, copyId, voice), 'audio/mpeg', request, response);
      if (!isSent) await haveMadeAnew(accountId, [{ itemId: item.id, copyId }]);
      return isSent;
    },

    /** What was being made when the server stopped is begun again. */
    async recover(): Promise<void> {
      await database.write((tx) =>
        tx.update(episodes).set({ state: 'waiting', progress: 0 }).where(eq(episodes.state, 'running')),
      );
    },

    async take(limit: number): Promise<EpisodeJob[]> {
      if (limit <= 0) return [];
      if (now() - lookedAt >= shortestLookMs) {
        lookedAt = now();
        for (const { accountId } of await database.read.select().from(podcasts)) await followAll(accountId);
      }
      return database.write(async (tx) => {
        const rows = await tx
          .select()
          .from(episodes)
          .where(eq(episodes.state, 'waiting'))
          // The top of the Queue first: see followAll.
          .orderBy(desc(episodes.madeAt))
          .limit(limit);
        for (const { accountId, itemId } of rows)
          await tx.update(episodes).set({ state: 'running' }).where(one(accountId, itemId));
        return rows.map(({ accountId, itemId, copyId }) => ({
          id: `${accountId} ${itemId}`,
          accountId,
          itemId,
          copyId,
        }));
      });
    },

    async nextDue(): Promise<number | null> {
      const [any] = await database.read.select({ secret: podcasts.secret }).from(podcasts).limit(1);
      if (!any) return null;
      const [waiting] = await database.read
        .select({ itemId: episodes.itemId })
        .from(episodes)
        .where(eq(episodes.state, 'waiting'))
        .limit(1);
      return waiting ? now() : lookedAt + shortestLookMs;
    },

    /** Makes the sound of an episode. */
    async makeSound({ id, accountId, itemId, copyId }: EpisodeJob): Promise<void> {
      const settle = (set: Partial<typeof episodes.$inferInsert>) =>
        database.write((tx) =>
          tx
            .update(episodes)
            .set(set)
            .where(and(one(accountId, itemId), eq(episodes.copyId, copyId))),
        );
      const [row] = await database.read
        .select({ record: sql<string>`${copies.record}`, item: items.record })
        .from(copies)
        .innerJoin(items, and(eq(items.accountId, accountId), eq(items.id, copies.itemId)))
        .where(and(eq(copies.accountId, accountId), eq(copies.id, copyId)));
      if (!row) {
        await settle({ state: 'failed', fault: 'no-text' });
        return;
      }
      const item = readStoredItem(row.item);
      if (!item) {
        await settle({ state: 'failed', fault: 'unreadable' });
        return;
      }
      const controller = new AbortController();
      making.set(id, controller);
      const text = { record: row.record, title: titleOf(item), source: sourceOf(item) };
      const name = nameOf(accountId, itemId, copyId, VOICE_VERSION);
      try {
        const made = await sounds.make(name, (target) =>
          speaker.speak({ ...text, target }, (progress) => void settle({ progress }), controller.signal),
        );
        await settle({ state: 'done', progress: 1, fault: null, voice: VOICE_VERSION, ...made });
        // Another process may have ended the podcast meanwhile, or erased the account: nothing of it stays.
        const [wanted] = await database.read
          .select({ copyId: episodes.copyId })
          .from(episodes)
          .where(and(one(accountId, itemId), eq(episodes.copyId, copyId)));
        if (!wanted) await sounds.remove(name);
      } catch (error) {
        if (controller.signal.aborted) return;
        const noVoice = error instanceof Error && error.message.startsWith('no voice');
        await settle({
          state: 'failed',
          fault: noVoice ? 'no-voice' : 'not-spoken',
        });
        if (!noVoice) throw error;
      } finally {
        making.delete(id);
      }
    },
  };
}
export type Podcasts = ReturnType<typeof podcastShelf>;
