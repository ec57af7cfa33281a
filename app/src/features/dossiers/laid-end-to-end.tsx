import type { Item } from '@dorvel/core/model';
import { minutesLeft } from '@dorvel/core/reading';
import { inHours, inMinutes, titleOf } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { Strand } from '@/ui/strand';

/** More of them would be specks. */
const MAX_STRANDS = 24;
const GAP = 3;

/** The minutes of a set, its strands laid end to end: how long all of it takes, and how much is left. */
export function LaidEndToEnd({ items }: { items: readonly Item[] }) {
  const [room, setRoom] = useState(0);
  const long = items.flatMap((item) => {
    const minutes = item.capture.page?.minutes ?? 0;
    return minutes > 0 ? [{ item, minutes }] : [];
  });
  if (long.length === 0) return null;
  const all = long.reduce((sum, { minutes }) => sum + minutes, 0);
  const left = long.reduce((sum, { item }) => sum + minutesLeft(item), 0);
  const shown = long.slice(0, MAX_STRANDS);
  const scale = Math.max(0, room - GAP * (shown.length - 1));
  return (
    <View className="gap-[2px]" onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width)}>
      {room > 0 && (
        <View className="flex-row items-center overflow-hidden" style={{ gap: GAP }}>
          {shown.map(({ item, minutes }) => (
            <Strand
              key={item.id}
              minutes={minutes}
              passed={item.progress.furthest}
              looseEnd={null}
              label={`${titleOf(item)}, ${inMinutes(minutes)}`}
              room={Math.max(8, (minutes / all) * scale)}
              filling
            />
          ))}
        </View>
      )}
      <Text className="font-ui text-small text-soft">
        {inHours(all)} in all{left < all ? `, ${inHours(left)} left` : ''}
        {long.length > shown.length ? `; the first ${shown.length} are drawn` : ''}
      </Text>
    </View>
  );
}
