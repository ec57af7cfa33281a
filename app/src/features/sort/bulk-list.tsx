import type { Item } from '@dorvel/core/model';
import { leftInWords, savedShort, sourceInLine, titleOf } from '@dorvel/core/wording';
import { memo, useEffect, useMemo } from 'react';
import { FlatList, Pressable, Text, View } from 'react-native';
import { namedList } from '@/ui/named-list';
import type { Reach, Selection } from './selection';

interface BulkListProps {
  name: string;
  items: readonly Item[];
  selection: Selection;
  onReach(id: string, how: Reach): void;
  /** Told of the rows in the order in which they stand. */
  onOrder(ids: readonly string[]): void;
}

/** The rows on a phone: each is a box to be ticked. */
export function BulkList({ name, items, selection, onReach, onOrder }: BulkListProps) {
  const ids = useMemo(() => items.map(({ id }) => id), [items]);
  useEffect(() => onOrder(ids), [ids, onOrder]);
  return (
    <FlatList
      {...namedList(name, items.length)}
      data={items}
      keyExtractor={({ id }) => id}
      extraData={selection}
      className="-mx-[20px]"
      renderItem={({ item }) => (
        <TickedRow item={item} chosen={selection.chosen.has(item.id)} onPress={() => onReach(item.id, 'toggle')} />
      )}
    />
  );
}

const TickedRow = memo(
  function TickedRow({ item, chosen, onPress }: { item: Item; chosen: boolean; onPress(): void }) {
    return (
      <View role="listitem" className={`border-b border-line ${chosen ? 'bg-sunken' : ''}`}>
        <Pressable
          role="checkbox"
          aria-checked={chosen}
          aria-label={titleOf(item)}
          onPress={onPress}
          className="min-h-[60px] flex-row items-center gap-[14px] px-[20px] py-[8px]"
        >
          <View
            className={`h-[22px] w-[22px] items-center justify-center rounded-[6px] border-[1.5px] ${chosen ? 'border-accent bg-accent' : 'border-soft'}`}
          >
            {chosen && <Text className="font-ui text-small font-semibold text-on-accent">✓</Text>}
          </View>
          <View className="min-w-0 flex-1">
            <Text numberOfLines={2} className="font-read text-base font-semibold text-ink">
              {titleOf(item)}
            </Text>
            <Text numberOfLines={1} className="font-ui text-small text-soft">
              {[leftInWords(item), sourceInLine(item), savedShort(item)].filter(Boolean).join(' · ')}
            </Text>
          </View>
        </Pressable>
      </View>
    );
  },
  (before, after) => before.item === after.item && before.chosen === after.chosen,
);
