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
import GripVertical from 'lucide-react/dist/esm/icons/grip-vertical.mjs';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Icon } from './icon';
import { namedList } from './named-list';

interface OrderedListProps<Each extends { id: string }> {
  name: string;
  items: readonly Each[];
  /** What a row is called when it is spoken of. */
  titleOf(each: Each): string;
  /** Where something stands, counted from 0, in words. */
  positionInWords(at: number): string;
  onMove(from: number, to: number): void;
  children(each: Each): ReactNode;
}

/** A list to be put in another order by its handles: by finger, by pointer, or by keys. */
export function OrderedList<Each extends { id: string }>({
  name,
  items,
  titleOf,
  positionInWords: placeInWords,
  onMove,
  children,
}: OrderedListProps<Each>) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const indexOf = (id: string | number) => items.findIndex((each) => each.id === id);
  const title = (id: string | number) => {
    const each = items[indexOf(id)];
    return each ? titleOf(each) : '';
  };
  const drop = (id: string | number, overId: string | number) => {
    const [from, to] = [indexOf(id), indexOf(overId)];
    if (from !== to && from !== -1 && to !== -1) onMove(from, to);
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => over && drop(active.id, over.id)}
      accessibility={{
        announcements: {
          onDragStart: ({ active }) => `“${title(active.id)}” is taken.`,
          onDragOver: ({ over }) => (over ? `${placeInWords(indexOf(over.id))}.` : undefined),
          onDragEnd: ({ active }) => `“${title(active.id)}” is put down.`,
          onDragCancel: ({ active }) => `“${title(active.id)}” is back where it was.`,
        },
      }}
    >
      <SortableContext items={items.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <View {...namedList(name, items.length)}>
          {items.map((each, at) => (
            <OrderedRow key={each.id} id={each.id} title={titleOf(each)} place={at + 1}>
              {children(each)}
            </OrderedRow>
          ))}
        </View>
      </SortableContext>
    </DndContext>
  );
}

function OrderedRow(props: { id: string; title: string; place: number; children: ReactNode }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: props.id,
  });
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
        aria-label={`Move “${props.title}”, number ${props.place}`}
      >
        <Icon of={GripVertical} tone="soft" size={20} />
      </button>
      <View className="min-w-0 flex-1 py-[10px]">{props.children}</View>
    </div>
  );
}
