import { z } from 'zod';

const code = <Code extends string>(...codes: readonly [Code, ...Code[]]) => z.object({ code: z.enum(codes) });
const times = z.number().int().nonnegative();

/** Why something could not be had: of a page, a feed, a file. `core/wording` says it in words. */
export const Cause = z.discriminatedUnion('code', [
  code(
    // What was asked for, and how the site answered.
    'redirects-nowhere',
    'redirects-in-circle',
    'private-network',
    'connection-refused',
    'connection-broken',
    'certificate-invalid',
    'not-unpackable',
    'not-http',
    'unchanged',
    // What came.
    'empty',
    'not-text',
    'pdf-too-large',
    'pdf-locked',
    'pdf-damaged',
    'book-without-text',
    'book-empty',
    'book-damaged',
    'book-too-large',
    'file-without-text',
    'picture-not-read',
    'page-too-long',
    'page-too-deep',
    'page-too-many-parts',
    'not-taken-apart',
    'too-much-memory',
    'no-feed',
    'named-feed-is-none',
    'feed-not-readable',
    // The server's own.
    'disk-full',
    'server-fault',
  ),
  z.object({ code: z.literal('redirects-to-scheme'), scheme: z.string().max(80) }),
  z.object({ code: z.literal('redirects-too-often'), most: times }),
  z.object({ code: z.literal('answered'), status: z.number().int() }),
  z.object({ code: z.literal('too-large'), megabytes: z.number().nonnegative() }),
  z.object({ code: z.literal('no-answer'), seconds: z.number().nonnegative() }),
  z.object({ code: z.literal('no-such-host'), host: z.string().max(300) }),
  z.object({ code: z.literal('leads-to'), what: z.string().max(80) }),
  z.object({ code: z.enum(['too-slow', 'feed-too-slow']), seconds: z.number().nonnegative() }),
  z.object({ code: z.literal('server-ended'), times }),
  z.object({ code: z.literal('tried-in-vain'), times }),
  /** The server would not take the save itself; in the words that it refused it with. */
  z.object({ code: z.literal('refused'), detail: z.string().max(500) }),
]);
export type Cause = z.infer<typeof Cause>;

/** What tells that a text did not arrive, or not whole. */
export const ArrivalSign = z.discriminatedUnion('code', [
  code(
    'sign-in',
    'captcha',
    'consent',
    'error-page',
    'another-page',
    'parked',
    'script-built',
    'empty',
    'empty-document',
    'only-pictures',
    'paywall',
    'paywall-stated',
    'paywall-notice',
  ),
  z.object({ code: z.literal('shorter-than-stated'), stated: times, came: times }),
  z.object({ code: z.literal('pages-missing'), from: times }),
]);
export type ArrivalSign = z.infer<typeof ArrivalSign>;

/** What became of an item's capture, or is becoming of it. */
export const CaptureOutcome = z.discriminatedUnion('code', [
  code(
    'waiting',
    'waiting-again',
    'given-waits',
    'waits-its-turn',
    'fetching',
    'address-only',
    'already-saved',
    'fetched-unchanged',
    'erased',
    'unreadable',
  ),
  z.object({ code: z.literal('fetching-page'), page: times }),
  /** A text came; how much of it is in the page's facts. */
  z.object({ code: z.literal('arrived'), missingPictures: times }),
  /** Fetched again, and what came is not what is read: `nothing`, or a `part` that is kept beside it. */
  z.object({
    code: z.literal('fetched-worse'),
    came: z.enum(['nothing', 'part']),
    signs: z.array(ArrivalSign).max(10),
    leadsElsewhere: z.boolean(),
  }),
  z.object({ code: z.literal('tried-again'), cause: Cause }),
  /** `tries` when it was the last of several. */
  z.object({ code: z.literal('failed'), cause: Cause, copyStays: z.boolean(), tries: times.nullable() }),
  /** As an earlier version said it. */
  z.object({ code: z.literal('said'), words: z.string().max(500) }),
]);
export type CaptureOutcome = z.infer<typeof CaptureOutcome>;

/** What became of the last look at a feed. */
export const FeedOutcome = z.discriminatedUnion('code', [
  code('waiting', 'nothing-new', 'no-entries', 'followed-twice'),
  z.object({ code: z.literal('new'), count: times }),
  z.object({ code: z.literal('failed'), cause: Cause, onNamedPage: z.boolean(), entriesStay: z.boolean() }),
  z.object({ code: z.literal('said'), words: z.string().max(500) }),
]);
export type FeedOutcome = z.infer<typeof FeedOutcome>;

/** Why there is no sound of an item. */
export const EpisodeFault = z.enum(['no-text', 'unreadable', 'no-voice', 'not-spoken']);
export type EpisodeFault = z.infer<typeof EpisodeFault>;

/** Outcomes of before they were data are one sentence in `says`; `duplicateOf` was called `sameAs`. */
export const withOutcome = (stored: unknown): unknown => {
  const old = z.looseObject({ says: z.string(), outcome: z.undefined().optional() }).safeParse(stored).data;
  if (!old) return stored;
  const { says, outcome: _none, ...rest } = old;
  const renamed = 'sameAs' in rest && !('duplicateOf' in rest) ? { duplicateOf: rest.sameAs } : {};
  delete rest.sameAs;
  return { ...rest, ...renamed, outcome: { code: 'said', words: says.slice(0, 500) } };
};

const COUNT = /[\d,]+/g;

/** Signs of before they had values are codes, each with its sentence in `reasons`. */
export const withSigns = (stored: unknown): unknown => {
  const Old = z.looseObject({
    reasons: z.array(z.string()).default([]),
    signs: z.array(z.unknown()).default([]),
  });
  const old = Old.safeParse(stored).data;
  if (!old) return stored;
  const { reasons, signs, ...rest } = old;
  return {
    ...rest,
    signs: signs.map((sign, at) => {
      if (typeof sign !== 'string') return sign;
      const [first = 0, second = 0] = (reasons[at]?.match(COUNT) ?? []).map((n) => Number(n.replace(/,/g, '')));
      return { code: sign, stated: first, came: second, from: first };
    }),
  };
};
