import { podcastFeed } from '@dorvel/core/formats';
import { Id, Podcast } from '@dorvel/core/model';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { type Request, type Response, Router } from 'express';
import { z } from 'zod';
import type { AccountEvents } from '../accounts/events';
import type { Episode, Podcasts } from '../publish/podcasts';
import { accountOf, callerOf } from './guard';
import { originOf } from './origin';
import { notFound } from './problem';
import { limitRate } from './tries';

const addressOf = (request: Request, secret: string, rest: string): string =>
  `${originOf(request)}/podcast/${secret}/${rest}`;

interface PodcastParts {
  podcasts: Podcasts;
  events: AccountEvents;
  wakeSpeaker(): void;
}

/** Where the reader begins their podcast, sees how far its sounds are, gives it another address, ends it. */
export function podcastRoutes({ podcasts, events, wakeSpeaker }: PodcastParts): Router {
  const router = Router();
  const answer = async (request: Request, response: Response) => {
    const { id } = accountOf(response);
    const podcast = await podcasts.of(id);
    if (podcast) await podcasts.follow(id);
    const episodes = podcast ? await podcasts.episodesOf(id) : [];
    response.json(
      Podcast.parse({
        podcast: podcast && {
          address: addressOf(request, podcast.secret, 'feed.xml'),
          madeAt: podcast.madeAt,
          episodes: episodes.map(({ item, ...episode }) => ({ ...episode, itemId: item.id })),
        },
      }),
    );
    wakeSpeaker();
  };
  router.get('/podcast', answer);
  router.post('/podcast', async (request, response) => {
    const { id } = accountOf(response);
    await podcasts.make(id);
    await events.note(id, 'podcast-made', callerOf(request));
    await answer(request, response);
  });
  router.delete('/podcast', async (request, response) => {
    await podcasts.end(accountOf(response).id);
    await answer(request, response);
  });
  return router;
}

const Secret = z.object({ secret: z.string().regex(/^[A-Za-z0-9_-]{32}$/) });
const OfEpisode = Secret.extend({ itemId: Id });
const OfDossier = Secret.extend({ dossierId: Id });

/**
 * The podcast itself, for any podcast app: no cookie, no account, only an address that nobody can guess. A wrong one is
 * answered as if there were nothing here.
 */
export function publicPodcastRoutes(podcasts: Podcasts, wake: () => void): Router {
  const router = Router();
  router.use(limitRate(240, 1));
  router.use((_request, response, next) => {
    response.set({ 'cache-control': 'private, no-cache', 'x-robots-tag': 'noindex' });
    next();
  });
  const ownerOf = async (secret: string): Promise<string> => {
    const accountId = await podcasts.at(secret);
    if (!accountId) throw notFound('That podcast');
    return accountId;
  };
  const read = <Params extends z.ZodType>(params: Params, given: unknown): z.output<Params> => {
    const parsed = params.safeParse(given);
    if (!parsed.success) throw notFound('That podcast');
    return parsed.data;
  };

  /** A feed of those that are ready. @param path of the feed itself, behind the secret */
  const feedOf = (
    request: Request,
    secret: string,
    {
      title,
      about,
      link,
      path,
      all,
    }: { title: string; about: string; link: string; path: string; all: readonly Episode[] },
  ): string => {
    const episodes = all.filter(({ state }) => state === 'done');
    return podcastFeed(
      {
        ...{ title, about, link: `${originOf(request)}${link}`, address: addressOf(request, secret, path) },
        language: episodes[0]?.item.capture.page?.language ?? 'en',
      },
      episodes.map(({ item, copyId, bytes, seconds, chapters, madeAt }) => ({
        id: `urn:uuid:${copyId}`,
        title: titleOf(item),
        source: sourceOf(item),
        link: /^https?:/.test(item.address) ? item.address : null,
        summary: item.capture.page?.excerpt ?? '',
        publishedAt: madeAt,
        address: addressOf(request, secret, `${item.id}.mp3`),
        bytes: bytes ?? 0,
        seconds: seconds ?? 0,
        chaptersAddress: chapters.length > 1 ? addressOf(request, secret, `${item.id}.json`) : null,
      })),
    );
  };

  router.get('/:secret/feed.xml', async (request, response) => {
    const { secret } = read(Secret, request.params);
    const accountId = await ownerOf(secret);
    await podcasts.follow(accountId);
    wake();
    const written = feedOf(request, secret, {
      title: 'Dorvel: your Queue',
      about: 'Your Queue, read aloud. The address is yours alone: who has it can hear it.',
      link: '/queue',
      path: 'feed.xml',
      all: await podcasts.episodesOf(accountId),
    });
    response.type('application/rss+xml').send(written);
  });

  // A dossier, in its own order: its first the newest, so that podcast apps show it as it stands.
  router.get('/:secret/dossiers/:dossierId.xml', async (request, response) => {
    const { secret, dossierId } = read(OfDossier, request.params);
    const accountId = await ownerOf(secret);
    await podcasts.follow(accountId);
    wake();
    const dossier = await podcasts.dossierOf(accountId, dossierId);
    if (!dossier) throw notFound('That podcast');
    const latest = Math.max(0, ...dossier.episodes.map(({ madeAt }) => madeAt));
    const written = feedOf(request, secret, {
      title: dossier.title,
      about: 'A dossier of yours, read aloud. The address is yours alone: who has it can hear it.',
      link: `/dossiers/${dossierId}`,
      path: `dossiers/${dossierId}.xml`,
      all: dossier.episodes.map((episode, at) => ({ ...episode, madeAt: latest - at * 1000 })),
    });
    response.type('application/rss+xml').send(written);
  });

  const episodeOf = async (request: Request) => {
    const { secret, itemId } = read(OfEpisode, request.params);
    const accountId = await ownerOf(secret);
    const episode = await podcasts.episodeOf(accountId, itemId);
    if (episode?.state !== 'done') throw notFound('That episode');
    return { accountId, episode };
  };

  router.get('/:secret/:itemId.mp3', async (request, response) => {
    const { accountId, episode } = await episodeOf(request);
    // Answers ranges too: an app goes on with a download where it was cut off.
    if (await podcasts.send(accountId, episode, request, response)) return;
    wake();
    throw notFound('That episode');
  });

  // JSON chapters 1.2 of the open podcast namespace.
  router.get('/:secret/:itemId.json', async (request, response) => {
    const { episode } = await episodeOf(request);
    response.type('application/json+chapters').send(
      JSON.stringify({
        version: '1.2.0',
        chapters: episode.chapters.map(({ title, startSeconds }) => ({ title, startTime: startSeconds })),
      }),
    );
  });
  return router;
}
