import { feedTitle } from '@dorvel/core/model';
import { whenWords } from '@dorvel/core/wording';
import { Linking, Pressable, Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { instantOfEntry, type Offer } from './feed-view';

const STAGES = {
  inbox: 'in Inbox',
  queue: 'in Queue',
  finished: 'finished',
  kept: 'kept',
  'let-go': 'let go',
} as const;

/** An entry of a feed: what it is about, and one press to save it. */
export function OfferRow({ offer, onSave }: { offer: Offer; onSave(): void }) {
  const { entry, feed, item } = offer;
  const title = entry.title ?? entry.summary?.slice(0, 120) ?? entry.address;
  const when = whenWords(instantOfEntry(entry));
  const authors = entry.authors.length > 0 ? ` · ${entry.authors.slice(0, 2).join(', ')}` : '';
  return (
    <View role="listitem" className="flex-row items-center gap-[12px] border-b border-line py-[13px]">
      <Pressable
        role="link"
        aria-label={`${title}: the page itself, in a new tab`}
        onPress={() => void Linking.openURL(entry.address)}
        className="min-w-0 flex-1"
      >
        <Text className={`font-read text-row font-semibold ${item ? 'text-soft' : 'text-ink'}`}>{title}</Text>
        <Text className="pt-[3px] font-ui text-small text-soft">
          {feedTitle(feed)} · {when}
          {authors}
        </Text>
        {entry.title !== null && entry.summary !== null && (
          <Text numberOfLines={2} className="pt-[4px] font-ui text-small text-ink">
            {entry.summary}
          </Text>
        )}
      </Pressable>
      {item ? (
        <Text className="w-[72px] text-center font-ui text-small text-moss">{STAGES[item.choices.stage.value]}</Text>
      ) : (
        <Button label="Save" name={`Save “${title}”`} onPress={onSave} />
      )}
    </View>
  );
}
