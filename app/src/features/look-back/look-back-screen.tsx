import { lookBackOn, type Period, periodAfter, periodBefore, periodOf } from '@dorvel/core/look-back';
import type { Activity, Highlight, Item, Note } from '@dorvel/core/model';
import { inHours, periodInWords } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import ChevronLeft from 'lucide-react/dist/esm/icons/chevron-left.mjs';
import ChevronRight from 'lucide-react/dist/esm/icons/chevron-right.mjs';
import X from 'lucide-react/dist/esm/icons/x.mjs';
import { useMemo, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { dayOf, useToday } from '@/device/store/day';
import { useItems } from '@/device/store/items';
import { useActivities, useHighlights, useNotes } from '@/device/store/library';
import { IconButton } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Icon } from '@/ui/icon';
import { ScreenHeader } from '@/ui/screen-header';
import { useWide } from '@/ui/wide';
import { BestOfIt } from './best-of-it';
import { ItemsOf } from './items-of';
import { MarkedInIt } from './marked-in-it';
import { PileLine } from './pile-line';
import { Subjects } from './subjects';
import { WhatMightGo } from './what-might-go';

const KINDS = [
  { value: 'week', label: 'Week' },
  { value: 'month', label: 'Month' },
] as const;

const NO_ITEMS: readonly Item[] = [];
const NO_ACTIVITIES: readonly Activity[] = [];
const NO_HIGHLIGHTS: readonly Highlight[] = [];
const NO_NOTES: readonly Note[] = [];

/** A week or a month, looked back on: what came of it, the best of it, what it was about, what might go. */
export function LookBackScreen() {
  const router = useRouter();
  const today = useToday();
  const [period, setPeriod] = useState<Period>(() => periodOf('week', today));
  const records = {
    items: useItems() ?? NO_ITEMS,
    activities: useActivities() ?? NO_ACTIVITIES,
    highlights: useHighlights() ?? NO_HIGHLIGHTS,
    notes: useNotes() ?? NO_NOTES,
  };
  const { items, activities, highlights, notes } = records;
  const told = useMemo(
    () => lookBackOn(period, { items, activities, highlights, notes }, today, dayOf),
    [period, items, activities, highlights, notes, today],
  );
  const before = useMemo(
    () => lookBackOn(periodBefore(period), { items, activities, highlights, notes }, today, dayOf),
    [period, items, activities, highlights, notes, today],
  );
  const isNow = period.to >= today;
  const wide = useWide();
  const nothing = told.cameIn.length + told.touched.length + told.highlights.length === 0;
  const first = (
    <>
      <BestOfIt period={period} told={told} today={today} />
      <Subjects now={told.touched} before={before.touched} kind={period.kind} />
      {isNow && <PileLine items={items} today={today} />}
      <ItemsOf title="Promised, and not read" items={told.promised} />
      {isNow && <WhatMightGo items={items} today={today} />}
    </>
  );
  const second = (
    <>
      <MarkedInIt highlights={told.highlights} items={items} />
      <ItemsOf title="Read" items={told.read} />
      <ItemsOf title="Heard" items={told.heard} />
      <ItemsOf title="Came in" items={told.cameIn} />
    </>
  );
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[1100px] gap-[20px] px-[20px] pb-[40px]"
    >
      <ScreenHeader
        title="Look-back"
        action={
          <IconButton name="Close the look-back" onPress={() => router.dismissTo('/now')}>
            <Icon of={X} tone="ink" />
          </IconButton>
        }
      />
      <View className="flex-row flex-wrap items-center justify-between gap-[10px]">
        <Choice
          name="How far back"
          options={KINDS}
          value={period.kind}
          onChange={(kind) => setPeriod(periodOf(kind, isNow ? today : period.from))}
        />
        <View className="flex-row items-center gap-[4px]">
          <IconButton name={`The ${period.kind} before`} onPress={() => setPeriod(periodBefore(period))}>
            <Icon of={ChevronLeft} tone="ink" />
          </IconButton>
          <Text role="heading" aria-level={2} className="min-w-[160px] text-center font-ui text-base text-ink">
            {periodInWords(period, today)}
          </Text>
          {isNow ? (
            <View className="w-[44px]" />
          ) : (
            <IconButton name={`The ${period.kind} after`} onPress={() => setPeriod(periodAfter(period))}>
              <Icon of={ChevronRight} tone="ink" />
            </IconButton>
          )}
        </View>
      </View>
      <Text role="status" className="font-ui text-base text-ink">
        {nothing ? `Nothing came in or was read in this ${period.kind}.` : inWords(told, before, period)}
      </Text>
      {wide ? (
        <View className="flex-row gap-[40px]">
          <View className="min-w-0 flex-1 gap-[26px]">{first}</View>
          <View className="min-w-0 flex-1 gap-[26px]">{second}</View>
        </View>
      ) : (
        <View className="gap-[26px]">
          {first}
          {second}
        </View>
      )}
    </ScrollView>
  );
}

type Told = ReturnType<typeof lookBackOn>;

function inWords(told: Told, before: Told, { kind }: Period): string {
  const minutes = (of: Told) => of.minutesByEyes + of.minutesByEars;
  const more = minutes(told) - minutes(before);
  const beside =
    Math.abs(more) < 1 ? '' : `, ${inHours(Math.abs(more))} ${more > 0 ? 'more' : 'less'} than in the ${kind} before`;
  const time = minutes(told) < 1 ? '' : ` It took ${inHours(minutes(told))}${beside}.`;
  return `${counted(told.cameIn.length)} came in; ${told.read.length} read, ${told.heard.length} heard.${time}`;
}

function counted(count: number): string {
  return count === 1 ? '1 item' : `${count} items`;
}
