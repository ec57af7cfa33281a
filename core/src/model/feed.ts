import { z } from 'zod';
import { extensible } from './extensible';
import { Id, Instant, MAX_ADDRESS_LENGTH } from './ids';
import { FeedOutcome, withOutcome } from './outcome';
import { stamped } from './register';
import { TagName } from './tag';

/** What a feed announced, as far as it is needed to choose by. */
export const FeedEntry = z.object({
  /** What tells it from the others of its feed. */
  key: z.string().min(1).max(2000),
  address: z.string().min(1).max(MAX_ADDRESS_LENGTH),
  title: z.string().max(1000).nullable(),
  authors: z.array(z.string().max(200)).max(20),
  /** ISO 8601. */
  publishedAt: z.string().max(40).nullable(),
  summary: z.string().max(600).nullable(),
  /** When we saw it first. */
  arrivedAt: Instant,
});
export type FeedEntry = z.infer<typeof FeedEntry>;

/** So many of a feed's entries are kept to choose from, the latest. */
export const MAX_ENTRIES = 60;

/** What becomes of a feed's entries: they are shown to choose from, or all saved to the Inbox. */
export const FeedMode = z.enum(['choose', 'save-all']);
export type FeedMode = z.infer<typeof FeedMode>;

/** What the reader decides about a feed; each field a register of its own. */
export const FeedChoices = extensible({
  /** False once the reader has stopped following it. */
  following: stamped(z.boolean()),
  /** The reader's own name for it; null means the feed's. */
  title: stamped(z.string().trim().min(1).max(500).nullable()),
  mode: stamped(FeedMode),
  /** Put on what is saved from it. */
  tag: stamped(TagName.nullable()),
  /** Entries that arrived until then have been looked through. */
  seenUntil: stamped(Instant),
  /** When the reader last asked for it to be looked at now. */
  askedAt: stamped(Instant),
});
export type FeedChoices = z.infer<typeof FeedChoices>;

/** What the server knows of a feed. Only the server writes it; the highest revision wins. */
const FeedStateNow = extensible({
  /** The account's sequence number at which the server wrote it; 0 before it has seen the feed. */
  revision: z.number().int().nonnegative(),
  state: z.enum(['waiting', 'working', 'broken']),
  /** What became of the last look at it. */
  outcome: FeedOutcome,
  title: z.string().max(1000).nullable(),
  siteUrl: z.string().max(MAX_ADDRESS_LENGTH).nullable(),
  /** Where the feed was found: the address that was given may be that of a page which names it. */
  feedAddress: z.string().max(MAX_ADDRESS_LENGTH).nullable(),
  checkedAt: Instant.nullable(),
  /** Since when it has been broken; null while it works. */
  brokenSince: Instant.nullable(),
  /** The latest arrival first. */
  entries: z.array(FeedEntry).max(MAX_ENTRIES),
});
export const FeedState = z.preprocess(withOutcome, FeedStateNow);
export type FeedState = z.infer<typeof FeedState>;

/** A feed that the reader follows, or has followed. */
export const Feed = extensible({
  id: Id,
  /** As the reader gave it: the feed's address, or that of a page which names it. */
  address: z.string().min(1).max(MAX_ADDRESS_LENGTH),
  followedAt: Instant,
  choices: FeedChoices,
  state: FeedState,
});
export type Feed = z.infer<typeof Feed>;

/** What a feed is called. */
export function feedTitle(feed: Feed): string {
  const { address } = feed;
  return feed.choices.title.value ?? feed.state.title ?? (URL.canParse(address) ? new URL(address).hostname : address);
}
