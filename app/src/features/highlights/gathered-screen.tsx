import { titleOf } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useItems, useItemsById } from '@/device/store/items';
import { useHighlights, useNotes } from '@/device/store/library';
import { usePutIn } from '@/features/collecting/put-in-store';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { OrderedList } from '@/ui/ordered-list';
import { ScreenHeader } from '@/ui/screen-header';
import { TakeAlong } from './export-highlights';
import { useGathered } from './gathered-store';
import { inRuns } from './highlights-view';
import { HighlightButton, OneHighlight } from './one-highlight';

/** Highlights that were laid together, from one item or many: to be put in order and taken along. */
export function GatheredScreen() {
  const highlights = useHighlights();
  const notes = useNotes();
  const items = useItems();
  const byId = useItemsById();
  const { ids, move, drop, restore } = useGathered();
  const show = useNotices((state) => state.show);
  const gathered = useMemo(
    () => ids.flatMap((id) => highlights?.find((each) => each.id === id) ?? []),
    [ids, highlights],
  );
  const runs = useMemo(() => inRuns(gathered, notes ?? [], items ?? []), [gathered, notes, items]);
  const title = (itemId: string) => {
    const item = byId.get(itemId);
    return item ? titleOf(item) : '';
  };
  const router = useRouter();
  const take = (id: string) => {
    drop([id]);
    show({ text: 'It is no longer gathered.', action: { label: 'Undo', press: () => restore(ids) } });
  };
  const clear = () => {
    restore([]);
    show({ text: 'Nothing is gathered.', action: { label: 'Undo', press: () => restore(ids) } });
  };
  return (
    <ScrollView className="flex-1 bg-ground">
      <View className="mx-auto w-full max-w-[640px] gap-[12px] px-[20px] pb-[90px]">
        <ScreenHeader title="Gathered" aside={gathered.length > 0 ? String(gathered.length) : ''} />
        {gathered.length === 0 && highlights ? (
          <View className="items-start gap-[14px]">
            <Text className="font-ui text-base text-soft">
              Nothing is gathered. On the page of highlights, “Gather” lays a passage here, to be put in order and taken
              along with its source.
            </Text>
            <Button label="Highlights" onPress={() => router.push('/marks')} />
          </View>
        ) : (
          <>
            <TakeAlong marked={runs} />
            <View className="flex-row flex-wrap gap-[10px]">
              <Button
                label="All into a dossier…"
                onPress={() =>
                  usePutIn
                    .getState()
                    .ask(gathered.map(({ id, itemId }) => ({ kind: 'passage', itemId, highlightId: id })))
                }
              />
              <Button label="Clear" onPress={clear} />
            </View>
          </>
        )}
        <OrderedList
          name="Gathered highlights"
          items={gathered}
          titleOf={({ choices }) => choices.passage.value.exact.slice(0, 60)}
          positionInWords={(at) => `Number ${at + 1}`}
          onMove={(from, to) => {
            // What is here may be less than what was gathered: places are counted in the whole.
            const whole = (at: number) => ids.indexOf(gathered[at]?.id ?? '');
            move(whole(from), whole(to));
          }}
        >
          {(highlight) => (
            <>
              <Text className="font-ui text-small text-soft">{title(highlight.itemId)}</Text>
              <OneHighlight highlight={highlight}>
                <HighlightButton label="Leave out" highlight={highlight} onPress={() => take(highlight.id)} />
              </OneHighlight>
            </>
          )}
        </OrderedList>
      </View>
    </ScrollView>
  );
}
