import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { type Item, type Stage, tagKey, TagName, tagsOf } from '@dorvel/core/model';
import { addDays } from '@dorvel/core/reading';
import { inputWords } from '@dorvel/core/wording';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { tagAll } from '@/device/store/changes';
import { dayOf } from '@/device/store/day';
import { useItems } from '@/device/store/items';
import { asEntries, usePutIn } from '@/features/collecting/put-in-store';
import { moves } from '@/features/items/moves';
import { useItemsOfTab, useLibraryView } from '@/features/library/library-view';
import { useTags } from '@/features/tags/use-tags';
import { type ListTab, TAB_NAMES } from '@/navigation/tabs';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { useKeys } from '@/ui/keys';
import { useNotices } from '@/ui/notices';
import { ScreenHeader } from '@/ui/screen-header';
import { Sheet } from '@/ui/sheet';
import { useWide } from '@/ui/wide';
import { BulkList } from './bulk-list';
import { BulkTable } from './bulk-table';
import { NOTHING_SELECTED, type Reach, reach, type Selection, withoutGone } from './selection';
import { TagTargets } from './tag-targets';

const NO_ITEMS: readonly Item[] = [];

const TITLES: Readonly<Record<ListTab, string>> = {
  inbox: 'Sort in bulk',
  queue: 'Several in the Queue',
  library: 'Several in the Library',
};
const isListTab = (name: string | undefined): name is ListTab => name !== undefined && name in TITLES;

/** A list in which many items are decided on at once: a table by pointer and by keys, rows to be ticked on a phone. */
export function BulkScreen() {
  const items = useItems();
  const router = useRouter();
  const wide = useWide();
  // From a long press on a row of a list: that one is selected.
  const { from, chosen: first } = useLocalSearchParams<{ from?: string; chosen?: string }>();
  const tab = isListTab(from) ? from : 'inbox';
  const { filter, order: libraryOrder } = useLibraryView();
  const shown = useItemsOfTab(tab, { filter, order: libraryOrder });
  const inbox = items ? shown : NO_ITEMS;
  const [order, setOrder] = useState<readonly string[]>([]);
  const { selection, go, clear } = useSelection(order, first);
  const chosen = useMemo(() => inbox.filter(({ id }) => selection.chosen.has(id)), [inbox, selection.chosen]);
  const { moveAll, comeBackAll } = moves;
  const [asking, setAsking] = useState<'tag' | 'day' | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 8 } }));
  const decide = (stage: Stage) => {
    if (chosen.length > 0) void moveAll(chosen, stage);
  };
  useKeys({
    q: () => decide('queue'),
    k: () => decide('kept'),
    x: () => decide('let-go'),
    g: () => chosen.length > 0 && setAsking('tag'),
    Escape: clear,
    Enter: () => selection.at !== null && router.push(`/${tab}/${selection.at}`),
  });
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        const name = over ? String(over.id) : null;
        if (name === null) return;
        // One that is not selected goes alone; one that is takes the others along.
        const dragged = String(active.id);
        const goes = selection.chosen.has(dragged) ? chosen : inbox.filter(({ id }) => id === dragged);
        putOn(goes, name);
      }}
    >
      <View className="flex-1 bg-ground px-[20px]">
        <ScreenHeader
          title={TITLES[tab]}
          aside={inbox.length === 0 ? '' : tab === 'inbox' ? `${inbox.length} to decide` : `${inbox.length}`}
        />
        <Bar wide={wide}>
          <Text role="status" className="min-w-[110px] font-ui text-base text-ink">
            {chosen.length === 0 ? 'None selected' : `${chosen.length} selected`}
          </Text>
          <Button label="Queue" kind="main" disabled={chosen.length === 0} onPress={() => decide('queue')} />
          <Button label="Keep" disabled={chosen.length === 0} onPress={() => decide('kept')} />
          <Button label="Tag…" disabled={chosen.length === 0} onPress={() => setAsking('tag')} />
          <Button label="Come back on…" disabled={chosen.length === 0} onPress={() => setAsking('day')} />
          <Button
            label="Into a dossier…"
            disabled={chosen.length === 0}
            onPress={() => usePutIn.getState().ask(asEntries(chosen.map(({ id }) => id)))}
          />
          <Button label="Let go" kind="loss" disabled={chosen.length === 0} onPress={() => decide('let-go')} />
        </Bar>
        {items && inbox.length === 0 ? (
          <View className="items-start gap-[14px] py-[24px]">
            <Text className="font-ui text-base text-soft">
              {tab === 'inbox' ? 'Nothing waits for a decision.' : 'Nothing is here now.'}
            </Text>
            {tab !== 'queue' && <Button label="To the Queue" onPress={() => router.push('/queue')} />}
          </View>
        ) : wide ? (
          <View className="min-h-0 flex-1 flex-row gap-[18px]">
            <BulkTable
              name={TAB_NAMES[tab]}
              items={inbox}
              library={items ?? NO_ITEMS}
              selection={selection}
              onReach={go}
              onOrder={setOrder}
            />
            <TagTargets onPress={(name) => putOn(chosen, name)} />
          </View>
        ) : (
          <BulkList name={TAB_NAMES[tab]} items={inbox} selection={selection} onReach={go} onOrder={setOrder} />
        )}
      </View>
      {asking === 'tag' && (
        <AskTag count={chosen.length} onClose={() => setAsking(null)} onTag={(name) => putOn(chosen, name)} />
      )}
      {asking === 'day' && (
        <AskDay
          onClose={() => setAsking(null)}
          onDay={(day) => {
            setAsking(null);
            void comeBackAll(chosen, day);
          }}
        />
      )}
    </DndContext>
  );
}

/** What can be done with the selected: side by side on a wide screen, along one line on a phone. */
function Bar({ wide, children }: { wide: boolean; children: ReactNode }) {
  const name = { role: 'toolbar', 'aria-label': 'What becomes of the selected' } as const;
  return wide ? (
    <View {...name} className="flex-row flex-wrap items-center gap-[10px] pb-[10px]">
      {children}
    </View>
  ) : (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      {...name}
      className="-mx-[20px] shrink-0 grow-0"
      contentContainerClassName="flex-row items-center gap-[10px] px-[20px] pb-[10px]"
    >
      {children}
    </ScrollView>
  );
}

/** Puts a tag on items, and offers to take it off those again that did not have it. */
function putOn(items: readonly Item[], name: string): void {
  const key = tagKey(name);
  const without = items.filter((item) => !tagsOf(item).some((own) => tagKey(own) === key));
  if (items.length === 0) return;
  const set = (value: string | null) => void tagAll(without.map(({ id }) => ({ itemId: id, set: { [key]: value } })));
  set(name);
  useNotices.getState().show({
    text: `“${name}” is on ${items.length === 1 ? 'it' : `all ${items.length}`}.`,
    action: { label: 'Undo', press: () => set(null) },
  });
}

/** The selection over the rows as they stand; what has gone from them leaves it. */
function useSelection(ids: readonly string[], first: string | undefined) {
  const [selection, setSelection] = useState<Selection>(() =>
    first === undefined ? NOTHING_SELECTED : reach(NOTHING_SELECTED, [first], first, 'only'),
  );
  const before = useRef(ids);
  useEffect(() => {
    const earlier = before.current;
    before.current = ids;
    // What is chosen beforehand is there before the rows are.
    if (earlier.length > 0) setSelection((now) => withoutGone(now, earlier, ids));
  }, [ids]);
  return {
    selection,
    go: (id: string, how: Reach) => setSelection((now) => reach(now, ids, id, how)),
    clear: () => setSelection(({ at }) => ({ ...NOTHING_SELECTED, at })),
  };
}

function AskTag({ count, onClose, onTag }: { count: number; onClose(): void; onTag(name: string): void }) {
  const tags = useTags();
  const [written, setWritten] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const put = () => {
    const parsed = TagName.safeParse(written);
    if (!parsed.success) {
      setFault(inputWords(parsed.error));
      return;
    }
    onClose();
    onTag(tags.find(({ key }) => key === tagKey(parsed.data))?.name ?? parsed.data);
  };
  return (
    <Sheet title={`Tag ${count}`} onClose={onClose}>
      <View className="gap-[14px]">
        <Field label="Tag" value={written} onChangeText={setWritten} onSubmitEditing={put} fault={fault} autoFocus />
        <Button label="Add the tag" kind="main" onPress={put} />
      </View>
    </Sheet>
  );
}

function AskDay({ onClose, onDay }: { onClose(): void; onDay(day: string): void }) {
  const today = dayOf(Date.now());
  return (
    <Sheet title="Come back on" onClose={onClose}>
      <View className="gap-[10px]">
        <Button label="Tomorrow" onPress={() => onDay(addDays(today, 1))} />
        <Button label="In a week" onPress={() => onDay(addDays(today, 7))} />
        <Button label="In a month" onPress={() => onDay(addDays(today, 30))} />
      </View>
    </Sheet>
  );
}
