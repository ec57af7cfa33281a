import { type Feed, type FeedMode, feedTitle, TagName } from '@dorvel/core/model';
import { feedWords, inputWords, momentWords } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { changeFeed } from '@/device/store/changes';
import { useItems } from '@/device/store/items';
import { useFeeds } from '@/device/store/library';
import { useSync } from '@/device/sync/sync-loop';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { SectionHeading } from '@/ui/section-heading';
import { Sheet } from '@/ui/sheet';
import { offersOf } from './feed-view';
import { OfferRow } from './offer-row';
import { useFeedMoves } from './use-feeds';

const MODES: readonly { value: FeedMode; label: string }[] = [
  { value: 'choose', label: 'Show me, I choose' },
  { value: 'save-all', label: 'Save everything' },
];
const LATEST = 10;

/** One feed: how it is, what becomes of what it brings, what it brought lately. */
export function FeedSheet({ feedId, onClose }: { feedId: string; onClose(): void }) {
  const feed = useFeeds()?.find(({ id }) => id === feedId);
  return feed ? (
    <Sheet title={feedTitle(feed)} onClose={onClose}>
      <FeedSettings feed={feed} onClose={onClose} />
    </Sheet>
  ) : null;
}

function FeedSettings({ feed, onClose }: { feed: Feed; onClose(): void }) {
  const items = useItems() ?? [];
  const online = useSync((state) => state.online);
  const moves = useFeedMoves();
  const { choices, state } = feed;
  const [title, setTitle] = useState(feedTitle(feed));
  const [tag, setTag] = useState(choices.tag.value ?? '');
  const [fault, setFault] = useState<string | null>(null);
  const offers = offersOf(feed, items).slice(0, LATEST);
  const asked = choices.askedAt.value > (state.checkedAt ?? 0);
  const keepTitle = () => {
    const named = title.trim().slice(0, 500);
    if (named !== feedTitle(feed)) void changeFeed(feed.id, { title: named === '' ? null : named });
  };
  const keepTag = () => {
    if (tag.trim() === (choices.tag.value ?? '')) return;
    const parsed = tag.trim() === '' ? null : TagName.safeParse(tag);
    if (parsed?.success === false) setFault(inputWords(parsed.error));
    else {
      setFault(null);
      void changeFeed(feed.id, { tag: parsed?.data ?? null });
    }
  };
  return (
    <View className="gap-[16px] pt-[4px]">
      <View className="gap-[4px]">
        <Text selectable className="font-ui text-small text-soft">
          {state.feedAddress ?? feed.address}
        </Text>
        <Text role="status" className={`font-ui text-small ${state.state === 'broken' ? 'text-brick' : 'text-ink'}`}>
          {state.state === 'broken' && state.brokenSince !== null
            ? `Broken since ${momentWords(state.brokenSince)}. `
            : ''}
          {feedWords(asked ? { code: 'waiting' } : state.outcome)}
          {state.checkedAt === null ? '' : ` Looked at ${momentWords(state.checkedAt)}.`}
        </Text>
      </View>
      <View className="gap-[8px]">
        <SectionHeading>What becomes of what it brings</SectionHeading>
        <Choice
          name="What becomes of what it brings"
          options={MODES}
          value={choices.mode.value}
          onChange={(mode) => void changeFeed(feed.id, { mode })}
        />
        <Text className="font-ui text-small text-soft">
          {choices.mode.value === 'choose'
            ? 'New entries wait under “New” until you save them or pass them over.'
            : 'What arrives from now on goes to the Inbox by itself, with the tag below.'}
        </Text>
      </View>
      {choices.mode.value === 'save-all' && (
        <Field
          label="Tag for what it saves"
          value={tag}
          onChangeText={setTag}
          onBlur={keepTag}
          onSubmitEditing={keepTag}
          fault={fault}
        />
      )}
      <Field label="Name" value={title} onChangeText={setTitle} onBlur={keepTitle} onSubmitEditing={keepTitle} />
      <View className="flex-row flex-wrap gap-[10px]">
        <Button
          label="Look now"
          disabled={!online || asked}
          onPress={() => void changeFeed(feed.id, { askedAt: Date.now() })}
        />
        <Button
          label="Stop following"
          kind="loss"
          onPress={() => {
            onClose();
            void moves.stop(feed);
          }}
        />
      </View>
      {offers.length > 0 && (
        <View>
          <SectionHeading>What it brought lately</SectionHeading>
          <View role="list" aria-label="What it brought lately">
            {offers.map((offer) => (
              <OfferRow key={offer.entry.key} offer={offer} onSave={() => void moves.save(offer)} />
            ))}
          </View>
        </View>
      )}
    </View>
  );
}
