import type { Item } from '@dorvel/core/model';
import { byRaised, inStage } from '@dorvel/core/queue';
import { useRouter } from 'expo-router';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useItems } from '@/device/store/items';
import { PutInButtons } from '@/features/collecting/put-in-buttons';
import { asEntries, putInLast } from '@/features/collecting/put-in-store';
import { moves } from '@/features/items/moves';
import { ItemTags } from '@/features/tags/item-tags';
import { Button } from '@/ui/button';
import { EDGE } from '@/ui/drawn';
import { tick } from '@/ui/haptics';
import { useKeys } from '@/ui/keys';
import { ScreenHeader } from '@/ui/screen-header';
import { Sheet } from '@/ui/sheet';
import { useWide } from '@/ui/wide';
import { SortCard } from './sort-card';
import { useSortRound } from './sort-store';
import { swipeOf } from './swipe';

/** The Inbox, one item at a time: does it still matter? */
export function SortScreen() {
  const items = useItems();
  const router = useRouter();
  const { later, decided, begin } = useSortRound();
  useEffect(begin, [begin]);
  const waiting = useSteadyOrder(items);
  const item = waiting.find(({ id }) => !later.has(id));
  const left = waiting.filter(({ id }) => !later.has(id)).length;
  return (
    <View className="mx-auto w-full max-w-[640px] flex-1 bg-ground">
      <View className="px-[20px]">
        <ScreenHeader title="Sort" aside={left > 0 ? `${left} to decide` : ''} />
      </View>
      {item ? (
        <Deciding key={item.id} item={item} />
      ) : (
        items && (
          <View className="items-start gap-[14px] px-[20px] py-[24px]">
            <Text className="font-ui text-base text-soft">{roundInWords(decided, waiting.length)}</Text>
            {waiting.length > 0 && <Button label="Go through those again" kind="main" onPress={begin} />}
            <Button label="To the Queue" onPress={() => router.push('/queue')} />
          </View>
        )
      )}
    </View>
  );
}

/**
 * What waits in the Inbox, newest first as it was when the round began. What comes in meanwhile goes to the end: the
 * card under the thumb must not become another one.
 */
function useSteadyOrder(items: readonly Item[] | undefined): Item[] {
  const order = useRef(new Map<string, number>());
  return useMemo(() => {
    const waiting = (items ?? []).filter((item) => inStage(item, 'inbox')).sort(byRaised);
    for (const { id } of waiting) if (!order.current.has(id)) order.current.set(id, order.current.size);
    const place = (item: Item) => order.current.get(item.id) ?? 0;
    return waiting.sort((a, b) => place(a) - place(b));
  }, [items]);
}

function roundInWords(decided: number, left: number): string {
  const done = decided === 0 ? '' : `Decided on ${decided}. `;
  return left === 0
    ? `${done}Nothing waits for a decision.`
    : `${done}${left} ${left === 1 ? 'is' : 'are'} left for later.`;
}

const KEYS_SAID = 'q queue · k keep · g tag · d dossier · x let go · z later';

function Deciding({ item }: { item: Item }) {
  const { move } = moves;
  const { leave, decide } = useSortRound();
  const wide = useWide();
  const [tagging, setTagging] = useState(false);
  const [stroke, setStroke] = useState<{ x: number; y: number } | null>(null);
  const to = useMemo(() => {
    const go = (stage: 'queue' | 'kept' | 'let-go') => () => {
      decide(1);
      void move(item, stage, () => decide(-1));
    };
    return { queue: go('queue'), keep: go('kept'), letGo: go('let-go'), later: () => leave(item.id) };
  }, [item, move, decide, leave]);
  useKeys(
    useMemo(
      () => ({
        ...{ q: to.queue, k: to.keep, x: to.letGo, z: to.later, g: () => setTagging(true) },
        d: () => void putInLast(asEntries([item.id])),
      }),
      [to, item.id],
    ),
  );
  return (
    <>
      <ScrollView
        className="min-h-0 flex-1"
        contentContainerClassName="px-[16px] pb-[16px]"
        // On the web the event is the browser's own: the place is that of its touches, not of the event.
        onTouchStart={({ nativeEvent: { touches } }) => {
          const [touch] = touches;
          setStroke(touch && touches.length === 1 ? { x: touch.pageX, y: touch.pageY } : null);
        }}
        onTouchEnd={({ nativeEvent: { changedTouches } }) => {
          const [touch] = changedTouches;
          // From the edge it goes back, and decides nothing.
          if (!stroke || !touch || stroke.x <= EDGE) return;
          const where = swipeOf(touch.pageX - stroke.x, touch.pageY - stroke.y);
          if (where) tick();
          if (where === 'right') to.queue();
          if (where === 'left') to.letGo();
        }}
      >
        <SortCard item={item} />
        <View className="pt-[16px]">
          <PutInButtons things={asEntries([item.id])} />
        </View>
      </ScrollView>
      <View role="group" aria-label="Decide" className="gap-[8px] border-t border-line px-[16px] pb-[10px] pt-[12px]">
        <View className="flex-row gap-[10px]">
          <Choose label="Let go" kind="loss" onPress={to.letGo} />
          <Choose label="Queue" kind="main" onPress={to.queue} />
        </View>
        <View className="flex-row gap-[10px]">
          <Choose label="Tag…" onPress={() => setTagging(true)} />
          <Choose label="Keep" onPress={to.keep} />
          <Choose label="Later" onPress={to.later} />
        </View>
        {/* Where notices stand too: they cover nothing that is pressed. */}
        <View className="min-h-[64px] justify-center">
          <Text className="text-center font-ui text-small text-soft">
            {wide ? KEYS_SAID : 'Swipe right to queue, left to let go.'}
          </Text>
        </View>
      </View>
      {tagging && (
        <Sheet title="Tags" onClose={() => setTagging(false)}>
          <ItemTags item={item} />
        </Sheet>
      )}
    </>
  );
}

function Choose(props: { label: string; kind?: 'main' | 'loss'; onPress(): void }) {
  return (
    <View className="flex-1">
      <Button {...props} />
    </View>
  );
}
