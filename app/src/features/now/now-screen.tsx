import type { Item } from '@dorvel/core/model';
import {
  asCandidate,
  daysUnemptied,
  dueToday,
  inStage,
  lastInAt,
  latelyFinished,
  LONG_MINUTES,
  resurfaceable,
  resurfaceToday,
  slotCandidates,
  stoppedBy,
  toGoOnWith,
} from '@dorvel/core/queue';
import { minutesLeft } from '@dorvel/core/reading';
import { dayInWords, dueInWords, reasonInWords, titleOf, whenWords } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import User from 'lucide-react/dist/esm/icons/user.mjs';
import { Fragment, type ReactNode, useEffect, useMemo, useState } from 'react';
import { Pressable, ScrollView, Text, useWindowDimensions, View } from 'react-native';
import { useReadyAhead } from '@/article/prerender';
import { choose } from '@/device/store/changes';
import { dayOf, useToday } from '@/device/store/day';
import { useItems, useItemsById, useItemsState } from '@/device/store/items';
import { useKeptCopies } from '@/device/store/kept-copies';
import { useSettledTexts } from '@/device/store/settled-texts';
import { useSync } from '@/device/sync/sync-loop';
import { useCloseness, usePartsOf } from '@/device/workers/relate/use-related';
import { useAddSheet } from '@/features/add/add-store';
import { FirstStepsOnNow } from '@/features/first-steps/first-steps';
import { ItemRow } from '@/features/items/item-row';
import { ItemSheet } from '@/features/items/item-sheet';
import { moves } from '@/features/items/moves';
import { PullToFetch } from '@/features/items/pull-to-fetch';
import { LIST_WIDTH } from '@/features/library/list-screen';
import { chosenVoice, useListeningSettings } from '@/features/listen/listening-settings-store';
import { Button, IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { useKeptScroll } from '@/ui/kept-scroll';
import { ScreenHeader } from '@/ui/screen-header';
import { SectionHeading } from '@/ui/section-heading';
import { useWide } from '@/ui/wide';
import { FromMemoryDue, TasksDue, WorkOverDue } from './due-sections';
import { type NowPart, useArranging, useNowParts } from './parts-store';
import { PinnedRows, usePinned } from './pinned';
import { Slot, useSlotPlan } from './slot';
import { useSlot } from './slot-store';
import { useNewShares } from './use-new-shares';

const NOTHING: Item[] = [];

/** The first screen: what to go on with, what fills the time there is, and what has come back. */
export function NowScreen({ openId }: { openId: string | null }) {
  const loaded = useItems();
  const items = loaded ?? NOTHING;
  const kept = useKeptCopies();
  const wide = useWide();
  const router = useRouter();
  const today = useToday();
  const { width } = useWindowDimensions();
  const { minutes, by } = useSlot();
  const rate = useListeningSettings((state) => state.rate);
  const [sheetFor, setSheetFor] = useState<string | null>(null);
  const arrange = useArranging((state) => state.open);
  const { passOver, tomorrow } = moves;

  const byId = useItemsById();
  const goOn = useMemo(() => toGoOnWith(items), [items]);
  useReadyAhead('now', goOn[0], kept);
  const partsOf = usePartsOfLong(items);
  const newShares = useNewShares(items);
  const candidates = useMemo(
    () =>
      slotCandidates(items, by, rate, (language) => chosenVoice(language) !== null, {
        partsOf: (id) => partsOf.get(id) ?? [],
        newShareOf: (id) => newShares.get(id) ?? 1,
      }),
    [items, by, rate, partsOf, newShares],
  );
  const plan = useSlotPlan(candidates, minutes);
  const due = useMemo(() => dueToday(items, today, dayOf), [items, today]);
  const resurfaced = useResurfaced(items, today, goOn, due);
  const unemptied = useMemo(() => daysUnemptied(items, Date.now()), [items]);

  // With nothing open it is a page of its own on a wide screen, else the list beside what is read.
  const isPage = wide && openId === null;
  const listWidth = isPage ? columnWidth(width) : wide ? LIST_WIDTH : width;
  const row = (item: Item, more: { reason?: string; action?: ReactNode }) => (
    <ItemRow
      key={item.id}
      item={item}
      href={`/now/${item.id}`}
      open={item.id === openId}
      here={kept?.has(item.capture.page?.copyId ?? '') ?? true}
      room={listWidth - (more.action ? 220 : 160)}
      {...(more.action ? {} : { onMore: () => setSheetFor(item.id) })}
      {...more}
    />
  );
  // What stands under Go on with already needs no second row.
  const then = plan.chosen.flatMap(({ id }) => byId.get(id) ?? []).filter((item) => !goOn.includes(item));
  const pinned = usePinned();
  const isEmpty =
    loaded !== undefined && goOn.length + candidates.length + due.length + resurfaced.length + pinned.length === 0;
  const drawn: Record<NowPart, ReactNode> = {
    'go-on': goOn.length > 0 && (
      <Section title="Go on with">
        {goOn.map((item) =>
          row(item, {
            reason: `${stoppedBy(item) === 'ears' ? 'listened to' : 'read'} ${whenWords(lastInAt(item))}`,
          }),
        )}
      </Section>
    ),
    slot: candidates.length > 0 && (
      <>
        <View className="px-[20px] pt-[22px]">
          <Slot candidates={candidates} byId={byId} room={listWidth - 40} />
        </View>
        {then.length > 0 && <View role="list">{then.map((item) => row(item, {}))}</View>}
      </>
    ),
    pinned: pinned.length > 0 && (
      <Section title="Pinned">
        <PinnedRows pinned={pinned} row={(item) => row(item, {})} />
      </Section>
    ),
    'come-back': due.length + resurfaced.length > 0 && (
      <Section title="Come back">
        {due.map((item) =>
          row(item, {
            reason: dueInWords(item, today),
            action: (
              <RowButton
                label="Tomorrow"
                name={`Tomorrow: “${titleOf(item)}”`}
                onPress={() => void tomorrow(item, today)}
              />
            ),
          }),
        )}
        {resurfaced.map(({ item, reason }) =>
          row(item, {
            reason,
            action: (
              <RowButton
                label="Not now"
                name={`Not now: “${titleOf(item)}”`}
                onPress={() => void passOver(item, today)}
              />
            ),
          }),
        )}
      </Section>
    ),
    'to-do': <TasksDue />,
    'from-memory': <FromMemoryDue />,
    'work-over': <WorkOverDue />,
    inbox: unemptied !== null && (
      <View role="region" aria-label="Inbox" className="items-start gap-[10px] px-[20px] pt-[26px]">
        <SectionHeading>Inbox</SectionHeading>
        <Text className="font-ui text-base text-ink">
          Not emptied for {unemptied} days. Sorting takes you through it, one thing at a time.
        </Text>
        <Button label="Sort, one at a time" onPress={() => router.push('/sort')} />
      </View>
    ),
    looking: !isEmpty && (
      <View className="flex-row flex-wrap gap-[10px] px-[20px] pt-[26px]">
        <Button label="Look-back" onPress={() => router.push('/look-back')} />
        <Button label="How I am doing" onPress={() => router.push('/doing')} />
      </View>
    ),
  };
  const scroll = useKeptScroll('now');
  const { order, hidden } = useNowParts();
  const shown = order.filter((part) => !hidden.includes(part));
  const stacked = (parts: readonly NowPart[]) => parts.map((part) => <Fragment key={part}>{drawn[part]}</Fragment>);
  return (
    <PullToFetch>
      <ScrollView
        {...scroll}
        className="flex-1 bg-ground"
        contentContainerClassName={isPage ? 'mx-auto w-full max-w-[1180px] px-[20px] pb-[40px]' : 'pb-[28px]'}
      >
        <View className="border-b border-line px-[20px]">
          <ScreenHeader
            title="Now"
            aside={dayInWords(today)}
            action={
              wide ? undefined : (
                <IconButton name="You" onPress={() => router.push('/you')}>
                  <Icon of={User} tone="ink" />
                </IconButton>
              )
            }
          />
        </View>
        {loaded && <FirstStepsOnNow items={loaded} />}
        {isEmpty && <NothingNow />}
        {isPage ? (
          <View className="flex-row gap-[28px]">
            <View className="min-w-0 flex-1">{stacked(shown.slice(0, IN_FIRST_COLUMN))}</View>
            <View className="min-w-0 flex-1">{stacked(shown.slice(IN_FIRST_COLUMN))}</View>
          </View>
        ) : (
          stacked(shown)
        )}
        {!isEmpty && (
          <View className="items-start px-[20px] pt-[26px]">
            <Button label="Arrange Now" onPress={arrange} />
          </View>
        )}
        {sheetFor && <ItemSheet itemId={sheetFor} onClose={() => setSheetFor(null)} />}
      </ScrollView>
    </PullToFetch>
  );
}

/** Of the parts that are shown, so many stand in the first of two columns. */
const IN_FIRST_COLUMN = 3;

/** The width of one of the two columns of the page, with what stands beside it. */
function columnWidth(width: number): number {
  const rail = 104;
  return (Math.min(1180, width - rail) - 40 - 28) / 2;
}

/** Where the long texts of the Queue can be put down. */
function usePartsOfLong(items: readonly Item[]): ReadonlyMap<string, readonly number[]> {
  const long = useMemo(
    () =>
      items
        .filter((item) => inStage(item, 'queue') && minutesLeft(item) >= LONG_MINUTES)
        .map(({ id }) => id)
        .sort(),
    [items],
  );
  const parts = usePartsOf(long, useSettledTexts());
  return useMemo(() => new Map((parts ?? []).map((each) => [each.id, each.parts])), [parts]);
}

/**
 * Whether what the server had is in memory, once in this session: what another device has lifted today is among it, and the
 * day has three places for all of them.
 */
function useAllIsKnown(): boolean {
  const settled = useSync((state) => state.settled);
  const isBehind = useItemsState((state) => state.isBehind);
  const [isKnown, setKnown] = useState(false);
  if (settled && !isBehind && !isKnown) setKnown(true);
  return isKnown;
}

/** What the resurfacing score lifts today, and that it was shown: noted once a day for each. */
function useResurfaced(
  items: readonly Item[],
  today: string,
  goOn: readonly Item[],
  due: readonly Item[],
): { item: Item; reason: string }[] {
  const isKnown = useAllIsKnown();
  const waiting = useMemo(
    () => resurfaceable(items, new Set([...goOn, ...due].map(({ id }) => id))),
    [items, goOn, due],
  );
  const finished = useMemo(() => latelyFinished(items, Date.now()), [items]);
  const closeness = useCloseness(
    waiting.map(({ id }) => id),
    finished,
  );
  const resurfaced = useMemo(() => {
    // Before all is known, what is lifted might be something else a moment later.
    if (!isKnown || closeness === undefined) return [];
    const close = new Map(closeness.map((each) => [each.id, each]));
    const byId = new Map(waiting.map((item) => [item.id, item]));
    return resurfaceToday(
      waiting.map((item) => asCandidate(item, close.get(item.id), dayOf)),
      today,
    ).flatMap(({ id, reasons }) => {
      const item = byId.get(id);
      return item ? [{ item, reason: reasonInWords(reasons) }] : [];
    });
  }, [isKnown, closeness, waiting, today]);
  useEffect(() => {
    for (const { item } of resurfaced) {
      const { times, lastOn } = item.choices.shown.value;
      if (lastOn !== today) void choose(item.id, { shown: { times: times + 1, lastOn: today } });
    }
  }, [resurfaced, today]);
  return resurfaced;
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View role="region" aria-label={title} className="pt-[22px]">
      <View className="border-b border-line px-[20px] pb-[8px]">
        <SectionHeading>{title}</SectionHeading>
      </View>
      <View role="list">{children}</View>
    </View>
  );
}

function RowButton({ label, name, onPress }: { label: string; name: string; onPress(): void }) {
  return (
    <Pressable
      role="button"
      aria-label={name}
      onPress={onPress}
      className="min-h-[44px] justify-center rounded-[12px] bg-sunken px-[12px]"
    >
      <Text className="font-ui text-small font-semibold text-ink">{label}</Text>
    </Pressable>
  );
}

function NothingNow() {
  const open = useAddSheet((state) => state.open);
  const settled = useSync((state) => state.settled);
  return (
    <View className="items-start gap-[14px] px-[20px] py-[28px]">
      <Text className="font-ui text-base text-soft">
        {settled
          ? 'Nothing is queued, so nothing waits for you now. Save something, or put something from the Inbox into the Queue.'
          : 'Fetching your library…'}
      </Text>
      {settled && <Button label="Save an address" onPress={open} />}
    </View>
  );
}
