import type { Item } from '@dorvel/core/model';
import { minutesLeft } from '@dorvel/core/reading';
import { inHours } from '@dorvel/core/wording';
import { Link, useRouter } from 'expo-router';
import { useCallback, useMemo, useRef, useState } from 'react';
import { Pressable, ScrollView, Text, useWindowDimensions, View } from 'react-native';
import { useReadyAhead } from '@/article/prerender';
import { useItems, useItemsSoFar } from '@/device/store/items';
import { useKeptCopies } from '@/device/store/kept-copies';
import { useSync } from '@/device/sync/sync-loop';
import { useAddSheet } from '@/features/add/add-store';
import { asEntries, usePutIn } from '@/features/collecting/put-in-store';
import { useNewCount } from '@/features/feeds/use-feeds';
import { FindField, NarrowBy } from '@/features/find/find-bar';
import { useFindQuery } from '@/features/find/find-store';
import { useLibraryFind } from '@/features/find/use-library-find';
import { ItemSheet } from '@/features/items/item-sheet';
import { PullToFetch } from '@/features/items/pull-to-fetch';
import { FoundNotes } from '@/features/notes/found-notes';
import { useTags } from '@/features/tags/use-tags';
import { type ListTab, TAB_NAMES } from '@/navigation/tabs';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { useKeys } from '@/ui/keys';
import { useLate } from '@/ui/late';
import { ScreenHeader } from '@/ui/screen-header';
import { useWide } from '@/ui/wide';
import { FoundList } from './found-list';
import { GoToSheet } from './go-to-sheet';
import { SORT_ORDERS, type SortOrder } from './headed';
import { HeadedList, type RowList } from './headed-list';
import { type StageFilter, useItemsOfTab, useLibraryView } from './library-view';
import { useRows } from './use-rows';

export const LIST_WIDTH = 420;

/** A list of items: Inbox, Queue or Library. */
export function ListScreen({ tab, openId }: { tab: ListTab; openId: string | null }) {
  const items = useItemsSoFar();
  const kept = useKeptCopies();
  const view = useLibraryView();
  const wide = useWide();
  const { width } = useWindowDimensions();
  const [sheetFor, setSheetFor] = useState<Item | null>(null);
  const scope = useFindQuery((state) => state.scope);
  const find = useLibraryFind(tab === 'library');
  const ofTab = useItemsOfTab(tab, view);
  const shown = find.asked ? find.found : ofTab;
  const listed = useMemo(() => [...find.found, ...find.also], [find.found, find.also]);
  const order = tab === 'inbox' ? 'saved' : view.order;
  const rows = useRows(ofTab, tab === 'queue' ? null : order);
  const list = useRef<RowList>(null);
  const [goingTo, setGoingTo] = useState(false);
  const hasHeadings = !find.asked && rows.some(({ kind }) => kind === 'heading');
  useStepKeys(tab, find.asked ? listed : shown, openId);
  useReadyAhead(tab, shown[0], kept);
  const router = useRouter();
  const select = useCallback(({ id }: Item) => router.push(`/bulk?from=${tab}&chosen=${id}`), [router, tab]);
  const room = (wide ? LIST_WIDTH : width) - 160;
  return (
    <View className="flex-1 bg-ground">
      <PullToFetch>
        <ListHead
          tab={tab}
          shown={shown}
          kept={kept}
          find={tab === 'library' ? find : null}
          onGoTo={hasHeadings ? () => setGoingTo(true) : null}
        />
        {find.asked ? (
          <>
            {scope !== 'articles' && <FoundNotes written={find.asked} />}
            {listed.length > 0 && (
              <FoundList
                items={listed}
                withAll={shown.length}
                passages={find.passages}
                openId={openId}
                here={kept}
                room={room}
                onMore={setSheetFor}
                onFurther={find.further}
              />
            )}
          </>
        ) : (
          <>
            {shown.length > 0 ? (
              <HeadedList
                tab={tab}
                rows={rows}
                openId={openId}
                kept={kept}
                room={room}
                list={list}
                onMore={setSheetFor}
                onSelect={select}
              />
            ) : (
              items !== undefined && <EmptyList tab={tab} />
            )}
          </>
        )}
      </PullToFetch>
      {goingTo && (
        <GoToSheet
          rows={rows}
          onGo={(index) => list.current?.scrollToIndex({ index, animated: false })}
          onClose={() => setGoingTo(false)}
        />
      )}
      {sheetFor && <ItemSheet itemId={sheetFor.id} onClose={() => setSheetFor(null)} />}
    </View>
  );
}

function ListHead({
  tab,
  shown,
  kept,
  find,
  onGoTo,
}: {
  tab: ListTab;
  shown: readonly Item[];
  kept: ReadonlySet<string> | undefined;
  /** Where things can be looked for: what was found. */
  find: ReturnType<typeof useLibraryFind> | null;
  /** Opens the headings of a long list; null where there are none. */
  onGoTo: (() => void) | null;
}) {
  const router = useRouter();
  const tags = useTags();
  const fromFeeds = useNewCount();
  const commonest = useMemo(
    () => [...tags].sort((a, b) => b.count - a.count).map(({ key, count }) => ({ tag: key, count })),
    [tags],
  );
  // Of the Library only a part is read at first.
  const isWhole = useItems() !== undefined || tab !== 'library';
  const late = useLate(!kept || !isWhole);
  const aside =
    kept && isWhole
      ? [summary(tab, shown), tab === 'library' ? '' : whereabouts(shown, kept)].filter(Boolean).join(' · ')
      : late
        ? 'Reading from this device…'
        : '';
  return (
    <View className="border-b border-line px-[20px]">
      <ScreenHeader title={TAB_NAMES[tab]} aside={aside}>
        {tab === 'library' && <OwnWork />}
        {tab === 'inbox' && (
          <View className="flex-row flex-wrap gap-[10px] pt-[10px]">
            {shown.length > 0 && (
              <Button label="Sort" name="Sort, one at a time" onPress={() => router.push('/sort')} />
            )}
            {shown.length > 0 && <Button label="In bulk" name="Sort in bulk" onPress={() => router.push('/bulk')} />}
            {onGoTo && <Button label="Go to…" onPress={onGoTo} />}
            <Button label={fromFeeds > 0 ? `Feeds: ${fromFeeds} new` : 'Feeds'} onPress={() => router.push('/feeds')} />
          </View>
        )}
        {tab === 'queue' && shown.length > 1 && (
          <View className="flex-row pt-[10px]">
            <Button label="Reorder" onPress={() => router.push('/order')} />
          </View>
        )}
        {find && <FindField />}
        {find && <NarrowBy tags={find.asked ? find.tags : commonest} />}
        {find && !find.asked && <LibraryControls onGoTo={onGoTo} />}
        {find?.asked && (
          <View role="status" aria-live="polite" className="gap-[2px]">
            {find.says.map((line) => (
              <Text key={line} className="font-ui text-small text-soft">
                {line}
              </Text>
            ))}
            {shown.length > 0 && (
              <View className="items-start py-[6px]">
                <Button
                  label={shown.length === 1 ? 'This one into a dossier…' : `All ${shown.length} into a dossier…`}
                  onPress={() => usePutIn.getState().ask(asEntries(shown.map(({ id }) => id)))}
                />
              </View>
            )}
          </View>
        )}
      </ScreenHeader>
    </View>
  );
}

/** What the reader made of the library: one press away, as it is in You. */
function OwnWork() {
  return (
    <View className="flex-row flex-wrap gap-x-[16px]">
      {OWN_WORK.map(({ label, href }) => (
        <Link key={href} href={href} asChild>
          <Pressable className="min-h-[44px] min-w-[44px] justify-center">
            <Text className="font-ui text-base text-accent underline">{label}</Text>
          </Pressable>
        </Link>
      ))}
    </View>
  );
}

const OWN_WORK = [
  { label: 'Dossiers', href: '/dossiers' },
  { label: 'Pictures', href: '/pictures' },
  { label: 'Highlights', href: '/marks' },
  { label: 'Notes', href: '/notes' },
  { label: 'Cards', href: '/cards' },
] as const;

/** Whether the texts of a list are on this device. */
function whereabouts(shown: readonly Item[], kept: ReadonlySet<string>): string {
  const arrived = shown.filter((item) => item.capture.page !== null);
  if (arrived.length === 0) return '';
  const missing = arrived.filter((item) => !kept.has(item.capture.page?.copyId ?? '')).length;
  return missing === 0 ? 'on this device' : `${missing} still to come`;
}

function summary(tab: ListTab, shown: readonly Item[]): string {
  if (shown.length === 0) return '';
  if (tab === 'inbox') return `${shown.length} to decide`;
  if (tab === 'library') return shown.length === 1 ? '1 item' : `${shown.length} items`;
  return `${shown.length} to read, ${inHours(shown.reduce((sum, item) => sum + minutesLeft(item), 0))}`;
}

const FILTERS: readonly { value: StageFilter; label: string }[] = [
  { value: 'all', label: 'All' },
  { value: 'inbox', label: 'Inbox' },
  { value: 'queue', label: 'Queue' },
  { value: 'finished', label: 'Finished' },
  { value: 'kept', label: 'Kept' },
  { value: 'let-go', label: 'Let go' },
];
const ORDER_LABELS: Readonly<Record<SortOrder, string>> = {
  saved: 'Newest save',
  length: 'Shortest',
  left: 'Least left',
  site: 'Site',
  tag: 'Tag',
  title: 'Title',
};
const ORDERS = SORT_ORDERS.map((value) => ({ value, label: ORDER_LABELS[value] }));

function LibraryControls({ onGoTo }: { onGoTo: (() => void) | null }) {
  const { filter, order, show } = useLibraryView();
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      contentContainerClassName="flex-row gap-[24px] pr-[20px]"
    >
      {onGoTo && <Button label="Go to…" onPress={onGoTo} />}
      <Choice name="Stage" options={FILTERS} value={filter} onChange={(value) => show({ filter: value })} />
      <Choice name="Order" options={ORDERS} value={order} onChange={(value) => show({ order: value })} />
    </ScrollView>
  );
}

const EMPTY: Record<ListTab, string> = {
  inbox: 'Nothing waits for a decision. What you save comes here first.',
  queue: 'Nothing is queued. Put something here from the Inbox, or begin to read it: that queues it too.',
  library: 'Nothing here that fits. Choose another stage, or save something.',
};

function EmptyList({ tab }: { tab: ListTab }) {
  const open = useAddSheet((state) => state.open);
  const settled = useSync((state) => state.settled);
  return (
    <View className="items-start gap-[14px] px-[20px] py-[28px]">
      <Text className="font-ui text-base text-soft">{settled ? EMPTY[tab] : 'Fetching your library…'}</Text>
      {settled && tab !== 'queue' && <Button label="Save an address" onPress={open} />}
    </View>
  );
}

/** n and p step through the list. */
function useStepKeys(tab: ListTab, shown: readonly Item[], openId: string | null): void {
  const router = useRouter();
  useKeys(
    useMemo(() => {
      const step = (by: number) => () => {
        const at = shown.findIndex((item) => item.id === openId);
        const next = shown[at === -1 ? 0 : at + by];
        if (next) router.replace(`/${tab}/${next.id}`);
      };
      return { n: step(1), p: step(-1) };
    }, [tab, shown, openId, router]),
  );
}
