import { hasText, type Item, tagKey, tagsOf } from '@dorvel/core/model';
import { PLAINLY_RELATED } from '@dorvel/core/nearness';
import { reasonForTag, sharedInWords, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { useMemo } from 'react';
import { Pressable, Text, View } from 'react-native';
import { tag } from '@/device/store/changes';
import { useItems, useItemsById } from '@/device/store/items';
import { useRelated } from '@/device/workers/relate/use-related';
import { AtAGlance } from '@/features/items/at-a-glance';
import { useSuggestedTags } from '@/features/tags/item-tags';
import { Chip } from '@/ui/chip';

const MAX_RELATED = 2;

/** What there is to decide by: what it is, how long, what it says, what of the reader's own it touches. */
export function SortCard({ item }: { item: Item }) {
  return (
    <View
      role="article"
      aria-label={titleOf(item)}
      className="gap-[12px] rounded-[20px] border border-line bg-raised p-[20px]"
    >
      <AtAGlance item={item} />
      <Touches item={item} />
      <Suggested item={item} />
      <Link href={`/inbox/${item.id}`} asChild>
        <Pressable className="min-h-[44px] justify-center self-start">
          <Text className="font-ui text-base font-semibold text-accent underline">Read it</Text>
        </Pressable>
      </Link>
    </View>
  );
}

/** What of the reader's own library it is near to, and why. */
function Touches({ item }: { item: Item }) {
  const items = useItemsById();
  const related = useRelated(item.id, item.capture.page?.copyId ?? '', MAX_RELATED) ?? [];
  const near = hasText(item) ? related.filter(({ nearness }) => nearness >= PLAINLY_RELATED) : [];
  if (near.length === 0) return null;
  return (
    <View role="region" aria-label="Related" className="gap-[6px] border-t border-line pt-[10px]">
      {near.map(({ id, shared }) => {
        const other = items.get(id);
        return other ? (
          <Text key={id} className="font-ui text-small text-soft">
            Near to <Text className="font-semibold text-ink">{titleOf(other)}</Text>: {sharedInWords(shared)}
          </Text>
        ) : null;
      })}
    </View>
  );
}

/** Tags that things near to it have; a press puts one on. Those it has are shown first. */
function Suggested({ item }: { item: Item }) {
  const items = useItems() ?? [];
  const keys = useMemo(() => new Set(tagsOf(item).map(tagKey)), [item]);
  const suggested = useSuggestedTags(item, items, keys).slice(0, MAX_RELATED);
  const own = tagsOf(item);
  if (own.length === 0 && suggested.length === 0) return null;
  return (
    <View role="group" aria-label="Tags" className="gap-[8px]">
      <View className="flex-row flex-wrap gap-[8px]">
        {own.map((name) => (
          <Chip
            key={name}
            label={`${name}  ×`}
            name={`Take off ${name}`}
            on
            onPress={() => void tag(item.id, { [tagKey(name)]: null })}
          />
        ))}
      </View>
      {suggested.map((suggestion) => (
        <View key={suggestion.tag} className="flex-row items-center gap-[10px]">
          <Chip
            label={`+ ${suggestion.tag}`}
            name={`Put on ${suggestion.tag}, suggested`}
            onPress={() => void tag(item.id, { [tagKey(suggestion.tag)]: suggestion.tag })}
          />
          <Text className="flex-1 font-ui text-small text-accent">{reasonForTag(suggestion, items)}</Text>
        </View>
      ))}
    </View>
  );
}
