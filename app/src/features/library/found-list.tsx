import type { Item, Passage } from '@dorvel/core/model';
import { memo } from 'react';
import { FlatList, Text, View } from 'react-native';
import { ItemRow } from '@/features/items/item-row';
import { IN_SMALL_STEPS } from './in-small-steps';

interface FoundListProps {
  items: readonly Item[];
  /** So many of them have all that was asked for; those behind them have some of it. */
  withAll: number;
  passages: Readonly<Record<string, Passage | null>>;
  openId: string | null;
  here: ReadonlySet<string> | undefined;
  room: number;
  onMore(item: Item): void;
  /** The end of what is shown came near. */
  onFurther(): void;
}

/** What was found, each with the passage in which it stands. Not made again for each letter that is typed. */
export const FoundList = memo(function FoundList({
  items,
  withAll,
  passages,
  openId,
  here,
  room,
  onMore,
  onFurther,
}: FoundListProps) {
  return (
    <FlatList
      role="list"
      aria-label="Found"
      data={items}
      keyExtractor={(item) => item.id}
      initialNumToRender={8}
      {...IN_SMALL_STEPS}
      keyboardShouldPersistTaps="handled"
      onEndReached={onFurther}
      onEndReachedThreshold={1}
      renderItem={({ item, index }) => {
        const passage = passages[item.id] ?? null;
        return (
          <>
            {index === withAll && index > 0 && (
              <View className="border-b border-line px-[20px] pb-[8px] pt-[22px]">
                <Text role="heading" aria-level={2} className="font-ui text-small font-semibold text-soft">
                  With some of these words
                </Text>
              </View>
            )}
            <ItemRow
              item={item}
              href={`/library/${item.id}${locateQuery(passage)}`}
              open={item.id === openId}
              here={here?.has(item.capture.page?.copyId ?? '') ?? true}
              room={room}
              passage={passage ? <MarkedPassage passage={passage} /> : undefined}
              onMore={onMore}
            />
          </>
        );
      }}
    />
  );
});

/** Marks that a place in an address holds, at most. */
const MAX_MARKS = 12;

/** Where in the text the passage's marks stand, for the reader to open there. */
function locateQuery(passage: Passage | null): string {
  if (!passage) return '';
  const marks = passage.marks
    .slice(0, MAX_MARKS)
    .map(({ start, end }) => `${passage.start + start}-${passage.start + end}`);
  return `?at=${marks.join('.')}`;
}

function MarkedPassage({ passage }: { passage: Passage }) {
  const parts: { text: string; marked: boolean }[] = [];
  let at = 0;
  for (const { start, end } of passage.marks) {
    parts.push({ text: passage.text.slice(at, start), marked: false });
    parts.push({ text: passage.text.slice(start, end), marked: true });
    at = end;
  }
  parts.push({ text: passage.text.slice(at), marked: false });
  return (
    <div dir="auto" className="row-passage">
      {parts.map(({ text, marked }, index) => (marked ? <mark key={index}>{text}</mark> : text))}
    </div>
  );
}
