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
  const itemOf = itemsByAddress(items);
  return followed(feeds)
    .filter((feed) => feed.choices.mode.value === 'choose')
    .flatMap((feed) =>
      feed.state.entries
        .filter(({ arrivedAt }) => arrivedAt > feed.choices.seenUntil.value)
        .map((entry) => ({ feed, entry, item: itemOf(entry.address) })),
    )
    .sort((a, b) => instantOfEntry(b.entry) - instantOfEntry(a.entry));
}

/** All that a feed has brought lately. */
export function offersOf(feed: Feed, items: readonly Item[]): Offer[] {
  const itemOf = itemsByAddress(items);
  return feed.state.entries.map((entry) => ({ feed, entry, item: itemOf(entry.address) }));
}

/** When it was published, or else when we saw it. */
export function instantOfEntry({ publishedAt, arrivedAt }: FeedEntry): number {
  const stated = publishedAt === null ? NaN : Date.parse(publishedAt);
  return Number.isNaN(stated) ? arrivedAt : Math.min(stated, arrivedAt);
}

function itemsByAddress(items: readonly Item[]): (address: string) => Item | null {
  const byKey = new Map(
    items.filter((item) => item.choices.stage.value !== 'let-go').map((item) => [item.capture.addressKey, item]),
  );
  return (address) => byKey.get(canonicalAddress(address)) ?? null;
}
