import type { Item } from '@dorvel/core/model';
import { titleOf } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useItems } from '@/device/store/items';
import { AtAGlance } from '@/features/items/at-a-glance';
import { LeadPicture } from '@/features/items/lead-picture';
import { StatedFacts } from '@/features/items/stated-facts';
import { ItemPlace } from '@/features/trail/place';
import { Trail } from '@/features/trail/trail';
import type { ListTab } from '@/navigation/tabs';
import { Button } from '@/ui/button';
import { useKeys } from '@/ui/keys';
import { SectionHeading } from '@/ui/section-heading';
import { useItemsOfTab, useLibraryView } from './library-view';

const NONE: readonly Item[] = [];

/** The reader's side of a wide screen while nothing is open: the first item of the list, to decide by; arrows move on. */
export function Preview({ tab }: { tab: ListTab }) {
  const items = useItems();
  const shown = useItemsOfTab(tab, useLibraryView());
  // Not the first of what is read so far: it would give way to another.
  const listed = items ? shown : NONE;
  const [atId, setAtId] = useState<string | null>(null);
  const at = Math.max(
    0,
    listed.findIndex(({ id }) => id === atId),
  );
  const item = listed[at];
  const router = useRouter();
  useKeys(
    useMemo(() => {
      const step = (by: 1 | -1) => () => {
        const next = listed[at + by];
        if (next) setAtId(next.id);
      };
      const open = () => {
        if (item) router.navigate(`/${tab}/${item.id}`);
      };
      return { ArrowDown: step(1), ArrowUp: step(-1), Enter: open };
    }, [listed, at, item, tab, router]),
  );
  useEffect(() => setAtId(null), [tab]);
  if (!item)
    return (
      <View className="flex-1 items-center justify-center p-[40px]">
        <Text className="max-w-[340px] text-center font-ui text-base text-soft">
          {items ? 'What is listed here is shown on this side. ? shows all keys.' : ''}
        </Text>
      </View>
    );
  return <OneItem key={item.id} item={item} tab={tab} place={`${at + 1} of ${listed.length}`} />;
}

function OneItem({ item, tab, place }: { item: Item; tab: ListTab; place: string }) {
  const router = useRouter();
  return (
    <ScrollView
      className="min-w-0 flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[620px] gap-[14px] p-[32px]"
    >
      <View role="region" aria-label={`At a glance: ${titleOf(item)}`} className="gap-[14px]">
        <Text role="status" className="font-ui text-small text-soft">
          {place} · the arrow keys move through, Enter opens
        </Text>
        <LeadPicture item={item} />
        <AtAGlance item={item} />
        <StatedFacts facts={item.capture.page?.facts ?? []} />
        <View className="items-start">
          <Button
            label="Open"
            name={`Open “${titleOf(item)}”`}
            kind="main"
            onPress={() => router.navigate(`/${tab}/${item.id}`)}
          />
        </View>
        <SectionHeading>Trail</SectionHeading>
        <Trail item={item} />
        <ItemPlace item={item} />
      </View>
    </ScrollView>
  );
}
