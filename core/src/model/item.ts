import { z } from 'zod';
import { TextAnchor } from './anchor';
import { ContentHash, Day, Fraction, Id, Instant, NEVER, Stamp } from './ids';
import { Spans } from './spans';

/** `inbox → queue → finished`, with `kept` and `let-go` beside them. */
export const Stage = z.enum(['inbox', 'queue', 'finished', 'kept', 'let-go']);
export type Stage = z.infer<typeof Stage>;

const stamped = <Value extends z.ZodType>(value: Value) => z.object({ value, at: Stamp });
/** A register that records from before it was thought of do not have. */
const stampedSince = <Value extends z.ZodType>(value: Value, otherwise: z.output<Value>) => {
  const register = stamped(value);
  return register.default({ value: otherwise, at: NEVER } as z.output<typeof register>);
};

/** How often something was done, and the day on which it was done last. */
export const Tally = z.object({ times: z.number().int().nonnegative(), lastOn: Day.nullable() });
export type Tally = z.infer<typeof Tally>;
export const NO_TALLY: Tally = { times: 0, lastOn: null };

/**
 * What the reader decides about an item, and how often it was put before them. Each field is a register of its
 * own: the last writer by clock stamp wins.
 */
export const Choices = z.object({
  stage: stamped(Stage),
  /** The reader's own title; null means the page's. */
  title: stamped(z.string().trim().min(1).max(500).nullable()),
  /** Order in the Queue; smaller is nearer the top. */
  queueRank: stamped(z.number()),
  /** When it was last saved, or saved again: lists put the newest on top. */
  raisedAt: stamped(Instant),
  /** When it was finished; an item can be finished and kept. */
  finishedAt: stamped(Instant.nullable()),
  /** The day on which it is to surface again. */
  comeBackOn: stampedSince(Day.nullable(), null),
  /** How often it was brought back in front of the reader. */
  shown: stampedSince(Tally, NO_TALLY),
  /** How often the reader passed it over when it was. */
  passedOver: stampedSince(Tally, NO_TALLY),
});
export type Choices = z.infer<typeof Choices>;
export type ChoiceField = keyof Choices;

/** How far, as one number whatever carried it, and where the reader stopped. */
export const Progress = z.object({
  /** The furthest fraction of words passed. Never goes down. */
  furthest: Fraction,
  /** The loose end: where to go on. */
  position: stamped(TextAnchor).nullable(),
  /** The parts that went by ear; what else is passed went by eye. */
  heard: Spans.default([]),
});
export type Progress = z.infer<typeof Progress>;

export const Verdict = z.enum(['whole', 'partial', 'failed']);

/** Our verdict on whether the text really arrived, with reasons in words a reader understands. */
export const CameThrough = z.object({ verdict: Verdict, reasons: z.array(z.string().max(300)).max(10) });
export type CameThrough = z.infer<typeof CameThrough>;

/** What the page says of itself, and the measure of its text. */
export const PageFacts = z.object({
  title: z.string().max(1000).nullable(),
  byline: z.string().max(500).nullable(),
  siteName: z.string().max(300).nullable(),
  /** ISO 8601, with its zone where the page states one. */
  publishedAt: z.string().max(40).nullable(),
  /** BCP 47 tag. */
  language: z.string().max(35).nullable(),
  excerpt: z.string().max(600).nullable(),
  wordCount: z.number().int().nonnegative(),
  /** Silent reading time in minutes, pictures counted. */
  minutes: z.number().nonnegative(),
  pictureCount: z.number().int().nonnegative(),
  thumbnail: ContentHash.nullable(),
  copyId: Id,
  cameThrough: CameThrough,
});
export type PageFacts = z.infer<typeof PageFacts>;

export const CaptureState = z.enum(['waiting', 'fetching', 'arrived', 'failed']);

/** What the server knows of the page. Only the server writes it; the highest revision wins. */
export const Capture = z.object({
  /** The account's sequence number at which the server wrote it; 0 before it has seen the item. */
  revision: z.number().int().nonnegative(),
  state: CaptureState,
  /** The state in words, for the reader. */
  says: z.string().max(500),
  attempts: z.number().int().nonnegative(),
  nextTryAt: Instant.nullable(),
  /** The address in canonical form: the same for two spellings of one page. */
  addressKey: z.string().max(8192),
  /** The item that stands for this one, when both turned out to be the same page. */
  sameAs: Id.nullable(),
  /** The page's facts; null until a copy has arrived. */
  page: PageFacts.nullable(),
});
export type Capture = z.infer<typeof Capture>;

/** Anything saved. */
export const Item = z.object({
  id: Id,
  /** The address as the reader gave it; never dropped, whatever its page does. */
  address: z.string().min(1).max(8192),
  savedAt: Instant,
  choices: Choices,
  progress: Progress,
  capture: Capture,
});
export type Item = z.infer<typeof Item>;
