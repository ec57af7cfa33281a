import { NEVER, type Feed, type FeedMutation } from '../model';
import { withChanges } from './apply';
import { mergeRegisters } from './merge';

/** A feed as a device makes it, before the server has seen it. */
export function newFeed(follow: Extract<FeedMutation, { type: 'follow' }>): Feed {
  const untouched = <Value>(value: Value) => ({ value, at: NEVER });
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
      says: 'Waiting to be looked at.',
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
export function applyFeedMutation(feed: Feed | undefined, mutation: FeedMutation): Feed | undefined {
  if (mutation.type === 'follow') {
    const made = newFeed(mutation);
    return feed ? mergeFeeds(feed, made) : made;
  }
  return (
    feed && mergeFeeds(feed, { ...feed, choices: withChanges(feed.choices, mutation.set, mutation.stamp) })
  );
}

/** Joins two states of one feed as mergeItems does with items: each choice by its latest stamp, the state by its revision. */
export function mergeFeeds(a: Feed, b: Feed): Feed {
  const first =
    a.followedAt < b.followedAt || (a.followedAt === b.followedAt && a.address <= b.address) ? a : b;
  return {
    id: a.id,
    address: first.address,
    followedAt: first.followedAt,
    choices: mergeRegisters(a.choices, b.choices),
    state: a.state.revision >= b.state.revision ? a.state : b.state,
  };
}
