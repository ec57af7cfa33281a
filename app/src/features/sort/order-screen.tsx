import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  TouchSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS as Style } from '@dnd-kit/utilities';
import type { Item } from '@dorvel/core/model';
import { byQueueOrder, inHours, inStage, lengthInWords, minutesLeft, moveInQueue } from '@dorvel/core/queue';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import GripVertical from 'lucide-react-native/icons/grip-vertical';
import { useEffect, useMemo, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useItems } from '@/device/library';
import { useMoves } from '@/features/library/moves';
import { Icon } from '@/ui/icon';
import { namedList } from '@/ui/named-list';
import { PlaceHeader } from '@/ui/place-header';

/** The Queue, to be put in another order: by finger, by pointer, or by keys. */
export function OrderScreen() {
  const items = useItems();
  const { reorder } = useMoves();
  const queue = useMemo(
    () => (items ?? []).filter((item) => inStage(item, 'queue')).sort(byQueueOrder),
    [items],
  );
  const order = useDroppedOrder(queue);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = (id: string, overId: string) => {
    const from = order.items.findIndex((item) => item.id === id);
    const to = order.items.findIndex((item) => item.id === overId);
    const moving = order.items[from];
    if (!moving || from === to || to === -1) return;
    const ranks = moveInQueue(queue, from, to);
    order.dropped(ranks);
    void reorder(ranks, `${placeInWords(to)}: “${titleOf(moving)}”.`);
  };
  const title = (id: string | number) => titleOrNothing(queue, String(id));
  return (
    <ScrollView className="flex-1 bg-ground">
      <View className="mx-auto w-full max-w-[640px] px-[20px] pb-[90px]">
        <PlaceHeader
          title="Order of the Queue"
          aside={inHours(queue.reduce((sum, item) => sum + minutesLeft(item), 0))}
        />
        <Text className="pb-[8px] font-ui text-base text-soft">
          Take an item by its handle and put it where it is to come. By keys: Space takes it, the arrows move
          it, Space puts it down.
        </Text>
        {queue.length === 0 && items && (
          <Text className="font-ui text-base text-soft">Nothing is queued.</Text>
        )}
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={({ active, over }) => over && drop(String(active.id), String(over.id))}
          accessibility={{
            announcements: {
              onDragStart: ({ active }) => `“${title(active.id)}” is taken.`,
              onDragOver: ({ over }) =>
                over ? `${placeInWords(order.items.findIndex(({ id }) => id === over.id))}.` : undefined,
              onDragEnd: ({ active }) => `“${title(active.id)}” is put down.`,
              onDragCancel: ({ active }) => `“${title(active.id)}” is back where it was.`,
            },
          }}
        >
          <SortableContext items={order.items.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
            <View {...namedList('Order of the Queue', queue.length)}>
              {order.items.map((item, at) => (
                <OrderRow key={item.id} item={item} place={at + 1} />
              ))}
            </View>
          </SortableContext>
        </DndContext>
      </View>
    </ScrollView>
  );
}

function placeInWords(at: number): string {
  return at === 0 ? 'Next in the Queue' : `Number ${at + 1} in the Queue`;
}

function titleOrNothing(queue: readonly Item[], id: string): string {
  const item = queue.find((each) => each.id === id);
  return item ? titleOf(item) : '';
}

/** The order as it was dropped, until the library says the same: a row must not jump back for a moment. */
function useDroppedOrder(queue: readonly Item[]) {
  const [ranks, dropped] = useState<ReturnType<typeof moveInQueue>>([]);
  const settled = ranks.every(
    ({ id, queueRank }) => queue.find((item) => item.id === id)?.choices.queueRank.value === queueRank,
  );
  useEffect(() => {
    if (settled) dropped([]);
  }, [settled]);
  const items = useMemo(() => {
    const rank = (item: Item) =>
      ranks.find(({ id }) => id === item.id)?.queueRank ?? item.choices.queueRank.value;
    return settled ? queue : [...queue].sort((a, b) => rank(a) - rank(b));
  }, [queue, ranks, settled]);
  return { items, dropped };
}

function OrderRow({ item, place }: { item: Item; place: number }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: item.id });
  return (
    <div
      ref={setNodeRef}
      role="listitem"
      className="order-row"
      data-dragging={isDragging || undefined}
      style={{ transform: Style.Transform.toString(transform), transition }}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className="order-handle"
        {...attributes}
        {...listeners}
        aria-label={`Move “${titleOf(item)}”, number ${place}`}
      >
        <Icon of={GripVertical} tone="soft" size={20} />
      </button>
      <View className="min-w-0 flex-1 py-[10px]">
        <Text className="font-read text-row font-semibold text-ink">{titleOf(item)}</Text>
        <Text className="font-ui text-small text-soft">
          {sourceOf(item)} · {lengthInWords(item)}
        </Text>
      </View>
    </div>
  );
}
