import { canonicalAddress } from '@dorvel/core/address';
import { type Feed, type FeedEntry, feedTitle, type Item } from '@dorvel/core/model';

/** An entry of a feed as it is put before the reader. */
export interface Offer {
  feed: Feed;
  entry: FeedEntry;
  /** The item that it became, wherever that is by now; null when it was not saved or was let go. */
  item: Item | null;
}

/** The feeds that the reader follows, by name. */
export function followed(feeds: readonly Feed[]): Feed[] {
  return feeds.filter((feed) => feed.choices.following.value).sort((a, b) => feedTitle(a).localeCompare(feedTitle(b)));
}

/** What is new to choose from, the latest first: of the feeds that do not save by themselves, what was not looked through. */
export function newOffers(feeds: readonly Feed[], items: readonly Item[]): Offer[] {
  const fresh = followed(feeds)
    .filter((feed) => feed.choices.mode.value === 'choose')
    .flatMap((feed) =>
      feed.state.entries
        .filter(({ arrivedAt }) => arrivedAt > feed.choices.seenUntil.value)
        .map((entry) => ({ feed, entry })),
    );
  return withItems(fresh, items).sort((a, b) => instantOfEntry(b.entry) - instantOfEntry(a.entry));
}

/** All that a feed has brought lately. */
export function offersOf(feed: Feed, items: readonly Item[]): Offer[] {
  return withItems(
    feed.state.entries.map((entry) => ({ feed, entry })),
    items,
  );
}

/** When it was published, or else when we saw it. */
export function instantOfEntry({ publishedAt, arrivedAt }: FeedEntry): number {
  const stated = publishedAt === null ? NaN : Date.parse(publishedAt);
  return Number.isNaN(stated) ? arrivedAt : Math.min(stated, arrivedAt);
}

/** Entries with what they became: of a library of thousands only what has an address of theirs is looked at closer. */
function withItems(entries: readonly Omit<Offer, 'item'>[], items: readonly Item[]): Offer[] {
  const keys = entries.map(({ entry }) => canonicalAddress(entry.address));
  const byKey = new Map<string, Item | null>(keys.map((key) => [key, null]));
  if (byKey.size > 0)
    for (const item of items)
      if (byKey.has(item.capture.addressKey) && item.choices.stage.value !== 'let-go')
        byKey.set(item.capture.addressKey, item);
  return entries.map((each, n) => ({ ...each, item: byKey.get(keys[n] ?? '') ?? null }));
}
