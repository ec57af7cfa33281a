import type { Item, Stage } from '@dorvel/core/model';
import { addDays, lengthInWords, readingState } from '@dorvel/core/queue';
import { Linking, Text, View } from 'react-native';
import { useState } from 'react';
import { choose, fetchAgain } from '@/device/changes';
import { dayOf } from '@/device/day';
import { useItem } from '@/device/library';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { Sheet } from '@/ui/sheet';
import { dayInWords, savedWords, sourceOf, titleOf } from './item-words';
import { useMoves } from './moves';

interface ItemSheetProps {
  itemId: string;
  onClose(): void;
  /** Called after the item has gone to another stage. */
  onMoved?(stage: Stage): void;
}

/** What can be done with an item, from a list or from the reader. */
export function ItemSheet({ itemId, onClose, onMoved }: ItemSheetProps) {
  const item = useItem(itemId);
  const { move, toTop } = useMoves();
  const [renaming, setRenaming] = useState(false);
  const [promising, setPromising] = useState(false);
  if (!item) return null;
  const stage = item.choices.stage.value;
  const go = (to: Stage) => {
    onClose();
    void move(item, to);
    onMoved?.(to);
  };
  return (
    <Sheet title={titleOf(item)} onClose={onClose}>
      <Text className="pb-[4px] font-ui text-small text-soft">
        {sourceOf(item)} · {savedWords(item)} · {lengthInWords(item)}
      </Text>
      <Text className="pb-[14px] font-ui text-small text-soft">{item.capture.says}</Text>
      {renaming ? (
        <Rename item={item} onDone={() => setRenaming(false)} />
      ) : promising ? (
        <ComeBack item={item} onDone={onClose} />
      ) : (
        <View className="gap-[10px]">
          {stage !== 'queue' && (
            <Button
              label={stage === 'let-go' ? 'Bring back to Queue' : 'Queue'}
              kind="main"
              onPress={() => go('queue')}
            />
          )}
          {stage === 'queue' && (
            <Button
              label="To the top of the Queue"
              onPress={() => {
                onClose();
                void toTop(item);
              }}
            />
          )}
          {readingState(item) !== 'finished' && <Button label="Finished" onPress={() => go('finished')} />}
          {stage !== 'kept' && <Button label="Keep for reference" onPress={() => go('kept')} />}
          <Button label={comeBackLabel(item)} onPress={() => setPromising(true)} />
          <Button label="Change the title" onPress={() => setRenaming(true)} />
          <Button
            label="Fetch the page again"
            onPress={() => {
              onClose();
              void fetchAgain(item.id);
            }}
          />
          <Button label="Open the page itself" onPress={() => void Linking.openURL(item.address)} />
          {stage !== 'let-go' && <Button label="Let go" kind="loss" onPress={() => go('let-go')} />}
        </View>
      )}
    </Sheet>
  );
}

function comeBackLabel(item: Item): string {
  const day = item.choices.comeBackOn.value;
  return day === null ? 'Come back on a day…' : `Comes back on ${dayInWords(day)}…`;
}

/** The day on which an item is to surface again. */
function ComeBack({ item, onDone }: { item: Item; onDone(): void }) {
  const { comeBack } = useMoves();
  const today = dayOf(Date.now());
  const [day, setDay] = useState(addDays(today, 3));
  const promise = (to: string | null) => {
    onDone();
    void comeBack(item, to);
  };
  return (
    <View className="gap-[10px]">
      <Button label="Tomorrow" onPress={() => promise(addDays(today, 1))} />
      <Button label="In a week" onPress={() => promise(addDays(today, 7))} />
      <Button label="In a month" onPress={() => promise(addDays(today, 30))} />
      <label className="day-field">
        <Text className="font-ui text-base font-semibold text-ink">On this day</Text>
        <input
          type="date"
          min={addDays(today, 1)}
          value={day}
          onChange={(event) => setDay(event.target.value)}
        />
      </label>
      <Button
        label="Come back on this day"
        kind="main"
        disabled={day <= today}
        onPress={() => promise(day)}
      />
      {item.choices.comeBackOn.value !== null && (
        <Button label="Not by date any more" onPress={() => promise(null)} />
      )}
    </View>
  );
}

function Rename({ item, onDone }: { item: Item; onDone(): void }) {
  const [title, setTitle] = useState(titleOf(item));
  const save = () => {
    const own = title.trim().slice(0, 500);
    void choose(item.id, { title: own === '' || own === item.capture.page?.title ? null : own });
    onDone();
  };
  return (
    <View className="gap-[12px]">
      <Field label="Title" value={title} onChangeText={setTitle} autoFocus onSubmitEditing={save} />
      <Text className="font-ui text-small text-soft">Leave it empty to go back to the page’s own title.</Text>
      <Button label="Save the title" kind="main" onPress={save} />
    </View>
  );
}
