import { z } from 'zod';
import { Feed, FeedMode, Id, Instant, MAX_ADDRESS_LENGTH, TagName } from '../model';
import { CHANGE, decisions, type Kind } from './kind';
import { mergeRegisters, untouched, withChanges } from './registers';

/** A feed is followed. Repeating it with the same feedId changes nothing. */
const FollowMutation = z.object({
  ...CHANGE,
  type: z.literal('follow'),
  feedId: Id,
  address: z.string().trim().min(1).max(MAX_ADDRESS_LENGTH),
  followedAt: Instant,
});

/** The reader decided something about a feed; only the fields named change. */
const ChangeFeedMutation = z.object({
  ...CHANGE,
  type: z.literal('feed'),
  feedId: Id,
  set: z
    .object({
      following: z.boolean(),
      title: z.string().trim().min(1).max(500).nullable(),
      mode: FeedMode,
      tag: TagName.nullable(),
      seenUntil: Instant,
      askedAt: Instant,
    })
    .partial(),
});

const FeedMutation = z.discriminatedUnion('type', [FollowMutation, ChangeFeedMutation]);
export type FeedMutation = z.infer<typeof FeedMutation>;
export type FeedChanges = z.infer<typeof ChangeFeedMutation>['set'];

/** A feed as a device makes it, before the server has seen it. */
function newFeed(follow: z.infer<typeof FollowMutation>): Feed {
  return {
    id: follow.feedId,
    address: follow.address,
    followedAt: follow.followedAt,
    choices: {
      following: { value: true, at: follow.stamp },
      title: untouched(null),
      mode: untouched('choose'),
      tag: untouched(null),
      seenUntil: untouched(0),
      askedAt: untouched(0),
    },
    state: {
      revision: 0,
      state: 'waiting',
      outcome: { code: 'waiting' },
      title: null,
      siteUrl: null,
      feedAddress: null,
      checkedAt: null,
      brokenSince: null,
      entries: [],
    },
  };
}

/**
 * What a feed is after a mutation: the same on a device and on the server. Pure, and harmless to repeat.
 *
 * @returns undefined when a change names a feed that is not known
 */
function applyFeedMutation(feed: Feed | undefined, mutation: FeedMutation): Feed | undefined {
  if (mutation.type === 'follow') {
    const made = newFeed(mutation);
    return feed ? mergeFeeds(feed, made) : made;
  }
  return feed && mergeFeeds(feed, { ...feed, choices: withChanges(feed.choices, mutation.set, mutation.stamp) });
}

/** Joins two states of one feed as mergeItems does with items: each choice by its latest stamp, the state by its revision. */
function mergeFeeds(a: Feed, b: Feed): Feed {
  const isFirst = a.followedAt < b.followedAt || (a.followedAt === b.followedAt && a.address <= b.address);
  return {
    ...(isFirst ? { ...b, ...a } : { ...a, ...b }),
    choices: mergeRegisters(a.choices, b.choices),
    state: a.state.revision >= b.state.revision ? a.state : b.state,
  };
}

/** A feed that the reader follows, or has followed. */
export const feedKind: Kind<Feed, FeedMutation> = {
  name: 'feed',
  plural: 'feeds',
  version: 2,
  schema: Feed,
  mutation: FeedMutation,
  types: ['follow', 'feed'],
  others: ['state'],
  idOf: ({ feedId }) => feedId,
  itemIdOf: () => null,
  apply: applyFeedMutation,
  merge: mergeFeeds,
  restate: ({ id: feedId, address, followedAt, choices }, base) => [
    { ...base(), type: 'follow', feedId, address, followedAt },
    ...decisions(choices, (stamp, set): FeedMutation => ({ ...base(stamp), type: 'feed', feedId, set })),
  ],
};
