import type { Item } from '@dorvel/core/model';
import { inStage, readingState } from '@dorvel/core/queue';
import { minutesLeft, type Week, weekByWeek } from '@dorvel/core/reading';
import { inHours } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import ChevronLeft from 'lucide-react/dist/esm/icons/chevron-left.mjs';
import { useMemo, useState } from 'react';
import { ScrollView, Text, useWindowDimensions, View } from 'react-native';
import { dayOf, useToday } from '@/device/store/day';
import { useItems } from '@/device/store/items';
import { useActivities } from '@/device/store/library';
import { IconButton } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Icon } from '@/ui/icon';
import { ScreenHeader } from '@/ui/screen-header';
import { SectionHeading } from '@/ui/section-heading';
import { ForecastSection } from './forecast-section';
import { ItemsChart, MinutesChart } from './week-charts';
import { WeekTable } from './week-table';

const WEEKS = 8;
const VIEWS = [
  { value: 'charts', label: 'As charts' },
  { value: 'table', label: 'As a table' },
] as const;

/** What came in, what was read and heard, and the time it took, week by week. */
export function StatisticsScreen() {
  const items = useItems();
  const activities = useActivities();
  const today = useToday();
  const router = useRouter();
  const { width } = useWindowDimensions();
  const [view, setView] = useState<'charts' | 'table'>('charts');
  const weeks = useMemo(
    () => (items && activities ? weekByWeek(items, activities, today, WEEKS, dayOf) : null),
    [items, activities, today],
  );
  const room = Math.min(width, 720) - 40;
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[720px] gap-[20px] px-[20px] pb-[40px]"
    >
      <ScreenHeader
        title="How I am doing"
        action={
          <IconButton name="Back to Now" onPress={() => router.dismissTo('/now')}>
            <Icon of={ChevronLeft} tone="ink" />
          </IconButton>
        }
      />
      {weeks && items && (
        <>
          <Text className="font-ui text-base text-ink">{thisWeekInWords(weeks)}</Text>
          <Text className="font-ui text-base text-soft">{pileInWords(items, weeks)}</Text>
          <View className="items-start">
            <Choice name="View" options={VIEWS} value={view} onChange={(next) => setView(next)} />
          </View>
          <ForecastSection items={items} today={today} room={room} asTable={view === 'table'} />
          {view === 'table' ? (
            <WeekTable weeks={weeks} />
          ) : (
            <>
              <SectionHeading>What came in, what was finished</SectionHeading>
              <ItemsChart weeks={weeks} room={room} />
              <SectionHeading>Minutes</SectionHeading>
              <MinutesChart weeks={weeks} room={room} />
            </>
          )}
        </>
      )}
    </ScrollView>
  );
}

function thisWeekInWords(weeks: readonly Week[]): string {
  const week = weeks.at(-1);
  if (!week) return '';
  const finished = week.read + week.heard;
  const minutes = week.minutesByEyes + week.minutesByEars;
  const time = minutes < 1 ? '' : ` You spent ${inHours(minutes)} reading and listening.`;
  return `This week ${counted(week.cameIn, 'item')} came in and ${counted(finished, 'item')} ${finished === 1 ? 'was' : 'were'} finished.${time}`;
}

/** The state of the pile, and what would help. */
function pileInWords(items: readonly Item[], weeks: readonly Week[]): string {
  const queue = items.filter((item) => inStage(item, 'queue') && readingState(item) !== 'finished');
  if (queue.length === 0) return 'The Queue is empty.';
  const lastMonth = weeks.slice(-4);
  const grown = lastMonth.reduce((sum, { cameIn, read, heard }) => sum + cameIn - read - heard, 0);
  const trend =
    grown > 0
      ? `In the last four weeks ${counted(grown, 'item')} more came in than ${grown === 1 ? 'was' : 'were'} finished.`
      : 'In the last four weeks as much was finished as came in, or more.';
  const shortest = queue
    .map(minutesLeft)
    .sort((a, b) => a - b)
    .slice(0, 3);
  const help =
    shortest.length === 3
      ? ` The three shortest take ${inHours(shortest.reduce((sum, each) => sum + each, 0))} together.`
      : '';
  return `${counted(queue.length, 'item')} ${queue.length === 1 ? 'is' : 'are'} in the Queue, ${inHours(queue.reduce((sum, item) => sum + minutesLeft(item), 0))}. ${trend}${help}`;
}

function counted(count: number, unit: string): string {
  return `${count === 0 ? 'no' : count} ${unit}${count === 1 ? '' : 's'}`;
}
