import { z } from 'zod';
import { Id } from './ids';
import { Scope } from './saved-search';

/** What a reader looks for. */
export const SearchRequest = z.object({
  /** The query as it is written; see core/search. */
  written: z.string().max(1000),
  scope: Scope,
  /** It is still being typed: its last word may be the beginning of one. */
  typing: z.boolean(),
  /** The reader's zone: minutes to add to UTC for their clock. */
  zoneMinutes: z.number().int().min(-840).max(840),
  /** What the usual minutes are multiplied by for this reader, by ISO 639-1 code; see core/queue. */
  paces: z.record(z.string().max(8), z.number().positive().max(20)).default({}),
});
export type SearchRequest = z.infer<typeof SearchRequest>;

/** A part of a text with what was looked for in it. */
export const Passage = z.object({
  text: z.string(),
  /** Offset of its first character in the plain text. */
  start: z.number().int().nonnegative(),
  /** What is marked, by offsets in `text`. */
  marks: z.array(z.object({ start: z.number().int(), end: z.number().int() })),
});
export type Passage = z.infer<typeof Passage>;

export const SearchResult = z.object({
  /**
   * Whether the items have all that was asked for; all, with a word read as another that is spelled nearly so, as
   * nothing had it; or, failing that too, some of it.
   */
  by: z.enum(['all', 'near', 'some']),
  /** Best first. */
  ids: z.array(Id),
  /** How many there are, where they are more than are named; null where all are. Left out by servers of before. */
  count: z.number().int().nullable().default(null),
  /** Behind these, the best of what has only some of it. Left out by servers of before. */
  also: z.array(Id).default([]),
  /** What of the query could not be understood, in words for the reader. */
  faults: z.array(z.string()),
  /** The tags of what was found, each with how many have it. */
  tags: z.array(z.object({ tag: z.string(), count: z.number().int() })),
  /** How many items have a text that is not at hand, so that of them only titles, tags and notes were looked at. */
  withoutText: z.number().int(),
});
export type SearchResult = z.infer<typeof SearchResult>;

/** POST /api/find: the whole library is looked through; for the items from `from` on the passages are given too. */
export const FindRequest = SearchRequest.extend({
  from: z.number().int().min(0),
  passages: z.number().int().min(0).max(50),
});
export const FindResponse = z.object({
  answer: SearchResult,
  passages: z.record(Id, Passage.nullable()),
});
export type FindResponse = z.infer<typeof FindResponse>;

export const CopyParams = z.object({ id: Id });
export const PictureParams = z.object({ file: z.string().regex(/^[0-9a-f]{64}\.webp$/) });
/** GET /healthz: the process is alive. */
export const Alive = z.object({ status: z.literal('alive') });
/** GET /readyz: it can do its work; 503 when it cannot, with what is not ready. */
export const Ready = z.object({
  status: z.enum(['ready', 'not-ready']),
  jobsOpen: z.number().int().nullable(),
  waitingFor: z.array(z.enum(['database', 'threads'])),
});
