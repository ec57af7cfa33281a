import { flowsOf, waitingByWeek, waitingMinutes } from '@dorvel/core/forecast';
import type { Item } from '@dorvel/core/model';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { dayOf } from '@/device/store/day';
import { PileChart } from '@/features/statistics/forecast-chart';
import { SectionHeading } from '@/ui/section-heading';

/** How much waited in Inbox and Queue, week by week, up to now. */
export function PileLine({ items, today }: { items: readonly Item[]; today: string }) {
  const [room, setRoom] = useState(0);
  const behind = useMemo(() => waitingByWeek(flowsOf(items, today, dayOf), waitingMinutes(items)), [items, today]);
  if (behind.length < 2) return null;
  return (
    <View
      role="region"
      aria-label="What waits"
      className="gap-[12px]"
      onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width)}
    >
      <SectionHeading>What waits</SectionHeading>
      {room > 0 && <PileChart behind={behind} room={room} />}
    </View>
  );
}
