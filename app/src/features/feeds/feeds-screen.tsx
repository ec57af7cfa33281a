import { readAddress } from '@dorvel/core/address';
import { type Feed, feedTitle } from '@dorvel/core/model';
import { feedWords } from '@dorvel/core/wording';
import ChevronRight from 'lucide-react/dist/esm/icons/chevron-right.mjs';
import { useMemo, useState } from 'react';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { useItems } from '@/device/store/items';
import { useFeeds } from '@/device/store/library';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { Icon } from '@/ui/icon';
import { namedList } from '@/ui/named-list';
import { ScreenHeader } from '@/ui/screen-header';
import { FeedSheet } from './feed-sheet';
import { followed, newOffers, type Offer } from './feed-view';
import { OfferRow } from './offer-row';
import { Subscriptions } from './subscriptions';
import { useFeedMoves } from './use-feeds';

type Side = 'new' | 'followed';
/** More than this is not looked through in one go. */
const SHOWN = 100;

/** What the feeds have brought, to choose from; and the feeds themselves. */
export function FeedsScreen() {
  const feeds = useFeeds();
  const items = useItems();
  const all = useMemo(() => followed(feeds ?? []), [feeds]);
  const offers = useMemo(() => newOffers(feeds ?? [], items ?? []), [feeds, items]);
  const [chosen, setChosen] = useState<Side | null>(null);
  const side = chosen ?? (all.length > 0 ? 'new' : 'followed');
  const unsaved = offers.filter(({ item }) => item === null).length;
  return (
    <ScrollView className="flex-1 bg-ground">
      <View className="mx-auto w-full max-w-[720px] px-[20px] pb-[40px]">
        <ScreenHeader title="Feeds" aside={feeds === undefined ? 'Reading from this device…' : countOf(all)}>
          <View className="pt-[10px]">
            <Choice<Side>
              name="What is shown"
              options={[
                { value: 'new', label: unsaved > 0 ? `New ${unsaved}` : 'New' },
                { value: 'followed', label: 'You follow' },
              ]}
              value={side}
              onChange={setChosen}
            />
          </View>
        </ScreenHeader>
        {side === 'new' ? <NewOffers offers={offers} follows={all.length > 0} /> : <FollowedFeeds feeds={all} />}
      </View>
    </ScrollView>
  );
}

function countOf(feeds: readonly Feed[]): string {
  const broken = feeds.filter(({ state }) => state.state === 'broken').length;
  return [feeds.length === 1 ? '1 feed' : `${feeds.length} feeds`, broken > 0 ? `${broken} broken` : '']
    .filter(Boolean)
    .join(' · ');
}

function NewOffers({ offers, follows }: { offers: readonly Offer[]; follows: boolean }) {
  const moves = useFeedMoves();
  if (offers.length === 0)
    return (
      <Text className="pt-[8px] font-ui text-base text-soft">
        {follows
          ? 'Nothing new. Your feeds are looked at now and then, by how often they bring something.'
          : 'You follow no feeds yet. Add one under “You follow”.'}
      </Text>
    );
  const shown = offers.slice(0, SHOWN);
  return (
    <View>
      <View role="list" aria-label="New in your feeds">
        {shown.map((offer) => (
          <OfferRow key={`${offer.feed.id} ${offer.entry.key}`} offer={offer} onSave={() => void moves.save(offer)} />
        ))}
      </View>
      <View className="items-start gap-[8px] pt-[18px]">
        <Button
          label={shown.length < offers.length ? `Pass over all ${offers.length}` : 'Pass over the rest'}
          onPress={() => void moves.passOver(offers)}
        />
        <Text className="font-ui text-small text-soft">
          {shown.length < offers.length
            ? `These are the latest ${shown.length} of ${offers.length}.`
            : 'That is all. What you saved is in the Inbox.'}
        </Text>
      </View>
    </View>
  );
}

function FollowedFeeds({ feeds }: { feeds: readonly Feed[] }) {
  const moves = useFeedMoves();
  const [written, setWritten] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [openId, setOpenId] = useState<string | null>(null);
  const follow = async () => {
    const reading = readAddress(written);
    if (!reading.ok) {
      setFault(reading.says);
      return;
    }
    setFault(null);
    setWritten('');
    await moves.follow([{ address: reading.address, title: null, tag: null }]);
  };
  return (
    <View className="gap-[12px] pt-[8px]">
      <Field
        label="Address of a feed, or of a site that has one"
        value={written}
        onChangeText={(text) => {
          setWritten(text);
          setFault(null);
        }}
        onSubmitEditing={() => void follow()}
        inputMode="url"
        fault={fault}
      />
      <View className="items-start">
        <Button label="Follow" kind="main" onPress={() => void follow()} />
      </View>
      <View {...namedList('Feeds that you follow', feeds.length)}>
        {feeds.map((feed) => (
          <View key={feed.id} role="listitem" className="border-b border-line">
            <Pressable
              role="button"
              aria-label={`${feedTitle(feed)}: what becomes of it`}
              onPress={() => setOpenId(feed.id)}
              className="min-h-[60px] flex-row items-center justify-between gap-[12px] py-[10px]"
            >
              <View className="min-w-0 flex-1">
                <Text className="font-read text-row font-semibold text-ink">{feedTitle(feed)}</Text>
                <Text
                  className={`pt-[2px] font-ui text-small ${feed.state.state === 'broken' ? 'text-brick' : 'text-soft'}`}
                >
                  {feed.choices.mode.value === 'save-all'
                    ? `Saves everything${feed.choices.tag.value ? `, as ${feed.choices.tag.value}` : ''} · `
                    : ''}
                  {feedWords(feed.state.outcome)}
                </Text>
              </View>
              <Icon of={ChevronRight} tone="soft" size={20} />
            </Pressable>
          </View>
        ))}
      </View>
      <Subscriptions feeds={feeds} />
      {openId !== null && <FeedSheet feedId={openId} onClose={() => setOpenId(null)} />}
    </View>
  );
}
