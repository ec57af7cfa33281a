import { readAddress } from '@dorvel/core/address';
import { type Feed, feedTitle } from '@dorvel/core/model';
import { alreadySavedWords } from '@dorvel/core/wording';
import { useMemo } from 'react';
import { changeFeed, choose, feedIdOf, type Followed, followFeeds, saveAddress } from '@/device/store/changes';
import { useItems } from '@/device/store/items';
import { useFeeds } from '@/device/store/library';
import { useSavingSettings } from '@/features/settings/saving-settings-store';
import { useNotices } from '@/ui/notices';
import { newOffers, type Offer } from './feed-view';

/** How many entries of all feeds are new and not saved. */
export function useNewCount(): number {
  const feeds = useFeeds();
  const items = useItems();
  return useMemo(() => newOffers(feeds ?? [], items ?? []).filter(({ item }) => item === null).length, [feeds, items]);
}

/** What is done with feeds, each with its undo. */
export function useFeedMoves() {
  const feeds = useFeeds() ?? [];
  const show = useNotices((state) => state.show);
  const howMuch = useSavingSettings((state) => state.howMuch);
  const stopAll = (ids: readonly string[]) => Promise.all(ids.map((id) => changeFeed(id, { following: false })));
  return {
    /** Follows feeds, but those that are followed already. @returns how many are new */
    async follow(wanted: readonly Followed[]): Promise<number> {
      const known = new Set(feeds.filter((feed) => feed.choices.following.value).map(({ id }) => id));
      const fresh = wanted.filter(({ address }) => !known.has(feedIdOf(address)));
      const ids = await followFeeds(fresh);
      const text =
        fresh.length === 0
          ? 'You follow that already.'
          : fresh.length === 1
            ? 'You follow it. What it brings shows up here.'
            : `You follow ${fresh.length} more feeds.`;
      show(fresh.length === 0 ? { text } : { text, action: { label: 'Undo', press: () => void stopAll(ids) } });
      return fresh.length;
    },

    async stop(feed: Feed): Promise<void> {
      await changeFeed(feed.id, { following: false });
      show({
        text: `You do not follow “${feedTitle(feed)}” any more. What you saved from it stays.`,
        action: { label: 'Undo', press: () => void changeFeed(feed.id, { following: true }) },
      });
    },

    async save({ entry }: Offer): Promise<void> {
      const reading = readAddress(entry.address);
      if (!reading.ok) {
        show({ text: reading.says });
        return;
      }
      const outcome = await saveAddress(reading, howMuch);
      show(
        outcome.kind === 'already-saved'
          ? { text: alreadySavedWords(outcome.item) }
          : {
              text: 'Saved to Inbox.',
              action: { label: 'Undo', press: () => void choose(outcome.itemId, { stage: 'let-go' }) },
            },
      );
    },

    /** All that is shown has been looked through; what was not saved is passed over. */
    async passOver(offers: readonly Offer[]): Promise<void> {
      const before = new Map(offers.map(({ feed }) => [feed.id, feed.choices.seenUntil.value]));
      const until = new Map<string, number>();
      for (const { feed, entry } of offers) until.set(feed.id, Math.max(until.get(feed.id) ?? 0, entry.arrivedAt));
      const set = (to: ReadonlyMap<string, number>) =>
        Promise.all([...to].map(([id, seenUntil]) => changeFeed(id, { seenUntil })));
      await set(until);
      show({
        text: 'Looked through. They stay with their feeds for a while.',
        action: { label: 'Undo', press: () => void set(before) },
      });
    },
  };
}
