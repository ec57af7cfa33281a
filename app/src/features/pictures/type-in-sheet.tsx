import { type Item, MAX_TYPED } from '@dorvel/core/model';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { choose } from '@/device/store/changes';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { Sheet } from '@/ui/sheet';

/** What stands in a picture, typed in beside it: handwriting, and whatever else nothing can read. */
export function TypeInSheet({ item, onClose }: { item: Item; onClose(): void }) {
  const [written, setWritten] = useState(item.choices.typed.value ?? '');
  const isTooLong = written.length > MAX_TYPED;
  const save = () => {
    if (isTooLong) return;
    void choose(item.id, { typed: written.trim() === '' ? null : written });
    onClose();
  };
  return (
    <Sheet title="What it says" whole onClose={onClose}>
      <View className="gap-[14px]">
        <View className="flex-row flex-wrap gap-[10px]">
          {item.capture.page?.pictures.map(({ hash }, n) => (
            <img key={hash} className="picture-beside" src={`/api/pictures/${hash}.webp`} alt={`Number ${n + 1}`} />
          ))}
        </View>
        <Field
          label="What stands in it"
          value={written}
          onChangeText={setWritten}
          multiline
          autoFocus
          fault={
            isTooLong
              ? `That is longer than ${MAX_TYPED.toLocaleString('en')} characters. Put a part of it in a note.`
              : null
          }
        />
        <Text className="font-ui text-small text-soft">It stands under the picture, is found, and can be heard.</Text>
        <Button label="Save" kind="main" onPress={save} />
      </View>
    </Sheet>
  );
}
