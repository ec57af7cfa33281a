import type { Item } from '@dorvel/core/model';
import { memo, type RefObject, useRef } from 'react';
import { FlatList, Text, View } from 'react-native';
import { ItemRow } from '@/features/items/item-row';
import { type ListTab, TAB_NAMES } from '@/navigation/tabs';
import type { ListRow } from './headed';
import { IN_SMALL_STEPS } from './in-small-steps';
import { useLibraryView } from './library-view';

export type RowList = FlatList<ListRow>;

interface HeadedListProps {
  tab: ListTab;
  rows: readonly ListRow[];
  openId: string | null;
  kept: ReadonlySet<string> | undefined;
  room: number;
  list: RefObject<RowList | null>;
  onMore(item: Item): void;
  onSelect(item: Item): void;
}

/** Rows that were not drawn yet have no place: the list goes to about where they are, draws, and looks again. */
const LOOK_AGAIN_MS = 80;
const MOST_LOOKS = 12;

/** The rows of a tab. Not made again for each letter that is typed above them. */
export const HeadedList = memo(function HeadedList(props: HeadedListProps) {
  const { tab, rows, openId, kept, room, list, onMore, onSelect } = props;
  const looks = useRef(0);
  return (
    <FlatList
      ref={list}
      role="list"
      aria-label={TAB_NAMES[tab]}
      data={rows}
      keyExtractor={({ key }) => key}
      initialNumToRender={12}
      {...IN_SMALL_STEPS}
      contentOffset={{ x: 0, y: useLibraryView.getState().scrolled[tab] ?? 0 }}
      onScroll={(event) => (useLibraryView.getState().scrolled[tab] = event.nativeEvent.contentOffset.y)}
      scrollEventThrottle={100}
      onScrollToIndexFailed={({ index, averageItemLength }) => {
        list.current?.scrollToOffset({ offset: averageItemLength * index, animated: false });
        if (looks.current++ < MOST_LOOKS)
          setTimeout(() => list.current?.scrollToIndex({ index, animated: false }), LOOK_AGAIN_MS);
        else looks.current = 0;
      }}
      renderItem={({ item: row }) =>
        row.kind === 'heading' ? (
          <Heading row={row} />
        ) : (
          <ItemRow
            item={row.item}
            href={`/${tab}/${row.item.id}`}
            open={row.item.id === openId}
            here={kept?.has(row.item.capture.page?.copyId ?? '') ?? true}
            room={room}
            onMore={onMore}
            onSelect={onSelect}
          />
        )
      }
    />
  );
});

function Heading({ row }: { row: Extract<ListRow, { kind: 'heading' }> }) {
  return (
    <View role="listitem" className="flex-row items-baseline justify-between bg-sunken px-[20px] py-[6px]">
      <Text role="heading" aria-level={2} className="font-ui text-small font-semibold text-ink">
        {row.title}
      </Text>
      <Text className="font-ui text-small text-soft">{row.count}</Text>
    </View>
  );
}
