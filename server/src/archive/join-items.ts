import { isLocalAddress, readAddress } from '@dorvel/core/address';
import { type CopyNote, type Feed, type Item, MAX_COPIES, type Standing } from '@dorvel/core/model';
import { itemKind, join } from '@dorvel/core/records';
import { isEqual } from 'es-toolkit';

/**
 * Joins an item of an archive with the one that is here, which is the same item or another of the same address. Both keep the
 * copies that they have: texts are never lost.
 *
 * @param sequence the change that is under way
 */
export function joinItem(here: Item, there: Item, sequence: number): { record: Item; standing: Standing } {
  const isTwin = here.id !== there.id;
  const theirs: Item = isTwin ? { ...there, id: here.id, address: here.address, capture: here.capture } : there;
  const { record, standing } = join(itemKind.merge, here, theirs);
  const { page, addressKey } = here.capture;
  const isTextTheirs = isTwin && page === null && there.capture.page !== null;
  const capture = isTextTheirs ? { ...there.capture, addressKey, duplicateOf: null } : record.capture;
  const copies = joinedCopies(here.capture.copies, there.capture.copies);
  if (!isTextTheirs && isEqual(copies, capture.copies)) return { record, standing };
  const hasMore = !isEqual(copies, here.capture.copies);
  return {
    record: { ...record, capture: { ...capture, copies, revision: hasMore ? sequence : capture.revision } },
    standing: hasMore && (standing === 'same' || standing === 'newer-here') ? 'both' : standing,
  };
}

/** The copies that either has, the newest first. */
function joinedCopies(here: readonly CopyNote[], there: readonly CopyNote[]): CopyNote[] {
  const known = new Set(here.map(({ id }) => id));
  const more = there.filter(({ id }) => !known.has(id));
  if (more.length === 0) return [...here];
  return [...here, ...more].sort((a, b) => b.madeAt - a.madeAt).slice(0, MAX_COPIES);
}

const leadsSomewhere = (address: string | null): boolean => address === null || readAddress(address).ok;
const unlessUnsafe = (address: string | null): string | null => (leadsSomewhere(address) ? address : null);

/** An item with no address in it but such as may be followed; null when its own is none. */
export function withSafeAddresses(item: Item): Item | null {
  if (!isLocalAddress(item.address) && !leadsSomewhere(item.address)) return null;
  const { page } = item.capture;
  if (!page || leadsSomewhere(page.licenceUrl)) return item;
  return { ...item, capture: { ...item.capture, page: { ...page, licenceUrl: null } } };
}

/** A feed likewise. */
export function feedWithSafeAddresses(feed: Feed): Feed | null {
  if (!leadsSomewhere(feed.address)) return null;
  const { siteUrl, feedAddress, entries } = feed.state;
  if (leadsSomewhere(siteUrl) && leadsSomewhere(feedAddress) && entries.every(({ address }) => leadsSomewhere(address)))
    return feed;
  return {
    ...feed,
    state: {
      ...feed.state,
      siteUrl: unlessUnsafe(siteUrl),
      feedAddress: unlessUnsafe(feedAddress),
      entries: entries.filter(({ address }) => leadsSomewhere(address)),
    },
  };
}
