import { z } from 'zod';
import { Id, Instant } from './ids';
import { EpisodeFault } from './outcome';

/** How far the sound of an item is. */
export const EpisodeState = z.enum(['waiting', 'running', 'done', 'failed']);
export type EpisodeState = z.infer<typeof EpisodeState>;

/** GET /api/podcast: the reader's own podcast of their Queue; null when there is none. */
export const Podcast = z.object({
  podcast: z
    .object({
      address: z.string(),
      madeAt: Instant,
      episodes: z.array(
        z.object({
          itemId: Id,
          state: EpisodeState,
          /** 0 to 1. */
          progress: z.number().min(0).max(1),
          seconds: z.number().nullable(),
          fault: EpisodeFault.nullable(),
        }),
      ),
    })
    .nullable(),
});

/** A place in an episode that can be gone to. */
export const Chapter = z.object({ title: z.string(), startSeconds: z.number().nonnegative() });
export type Chapter = z.infer<typeof Chapter>;
