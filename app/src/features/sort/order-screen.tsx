import type { Item } from '@dorvel/core/model';
import { byQueueOrder, moveInQueue } from '@dorvel/core/queue';
import { minutesLeft } from '@dorvel/core/reading';
import { inHours, lengthInWords, sourceInLine, titleOf } from '@dorvel/core/wording';
import { useEffect, useMemo, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useItems, useItemsIn } from '@/device/store/items';
import { moves } from '@/features/items/moves';
import { OrderedList } from '@/ui/ordered-list';
import { ScreenHeader } from '@/ui/screen-header';

/** The Queue, to be put in another order. */
export function OrderScreen() {
  const inQueue = useItemsIn('queue');
  const isRead = useItems() !== undefined;
  const { reorder } = moves;
  const queue = useMemo(() => [...inQueue].sort(byQueueOrder), [inQueue]);
  const order = useDroppedOrder(queue);
  const move = (from: number, to: number) => {
    const moving = order.items[from];
    if (!moving) return;
    const ranks = moveInQueue(queue, from, to);
    order.dropped(ranks);
    void reorder(ranks, `${placeInWords(to)}: “${titleOf(moving)}”.`);
  };
  return (
    <ScrollView className="flex-1 bg-ground">
      <View className="mx-auto w-full max-w-[640px] px-[20px] pb-[90px]">
        <ScreenHeader
          title="Order of the Queue"
          aside={inHours(queue.reduce((sum, item) => sum + minutesLeft(item), 0))}
        />
        <Text className="pb-[8px] font-ui text-base text-soft">
          Take an item by its handle and put it where it is to come. By keys: Space takes it, the arrows move it, Space
          puts it down.
        </Text>
        {queue.length === 0 && isRead && <Text className="font-ui text-base text-soft">Nothing is queued.</Text>}
        <OrderedList
          name="Order of the Queue"
          items={order.items}
          titleOf={titleOf}
          positionInWords={placeInWords}
          onMove={move}
        >
          {(item) => (
            <>
              <Text className="font-read text-row font-semibold text-ink">{titleOf(item)}</Text>
              <Text className="font-ui text-small text-soft">
                {sourceInLine(item)} · {lengthInWords(item)}
              </Text>
            </>
          )}
        </OrderedList>
      </View>
    </ScrollView>
  );
}

function placeInWords(at: number): string {
  return at === 0 ? 'Next in the Queue' : `Number ${at + 1} in the Queue`;
}

/** The order as it was dropped, until the library says the same: a row must not jump back for a moment. */
function useDroppedOrder(queue: readonly Item[]) {
  const [ranks, setRanks] = useState<ReturnType<typeof moveInQueue>>([]);
  const settled = ranks.every(
    ({ id, queueRank }) => queue.find((item) => item.id === id)?.choices.queueRank.value === queueRank,
  );
  useEffect(() => {
    if (settled) setRanks([]);
  }, [settled]);
  const items = useMemo(() => {
    const rank = (item: Item) => ranks.find(({ id }) => id === item.id)?.queueRank ?? item.choices.queueRank.value;
    return settled ? queue : [...queue].sort((a, b) => rank(a) - rank(b));
  }, [queue, ranks, settled]);
  return { items, dropped: setRanks };
}
