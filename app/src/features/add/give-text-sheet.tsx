import type { GivenText, Item } from '@dorvel/core/model';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { giveText } from '@/device/store/changes';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';
import { GivenTextField } from './given-text';

/** Where a page did not come through, its text can be given by hand. */
export function GiveTextSheet({ item, onClose }: { item: Item; onClose(): void }) {
  const [given, setGiven] = useState<GivenText | null>(null);
  const show = useNotices((state) => state.show);
  return (
    <Sheet title="Paste the text" onClose={onClose}>
      <View className="gap-[14px]">
        <Text className="font-ui text-base text-soft">
          Open the page, mark its text, copy it, and paste it here; or save the page in your browser and choose the
          file. It becomes a copy of its own, beside those there are.
        </Text>
        <GivenTextField onGiven={setGiven} />
        <Button
          label="Use this text"
          kind="main"
          disabled={given === null}
          onPress={() => {
            if (!given) return;
            onClose();
            void giveText(item.id, given);
            show({ text: 'Taken. It is made ready as soon as there is a connection.' });
          }}
        />
      </View>
    </Sheet>
  );
}
