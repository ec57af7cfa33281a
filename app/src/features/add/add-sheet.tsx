import { readAddress } from '@dorvel/core/address';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { choose, saveAddress } from '@/device/changes';
import { alreadySavedWords } from '@/features/library/item-words';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';
import { useAddSheet } from './add-store';

/** Paste or type an address; one press, and it is in the Inbox. */
export function AddSheet() {
  const close = useAddSheet((state) => state.close);
  const show = useNotices((state) => state.show);
  const router = useRouter();
  const [input, setInput] = useState('');
  const [fault, setFault] = useState<string | null>(null);

  const save = async () => {
    const reading = readAddress(input);
    if (!reading.ok) {
      setFault(reading.says);
      return;
    }
    const outcome = await saveAddress(reading);
    close();
    if (outcome.kind === 'already-saved') {
      show({ text: alreadySavedWords(outcome.item) });
      return;
    }
    show({
      text: 'Saved to Inbox.',
      action: { label: 'Undo', press: () => void choose(outcome.itemId, { stage: 'let-go' }) },
    });
    router.navigate('/inbox');
  };
  return (
    <Sheet title="Save an address" onClose={close}>
      <View className="gap-[16px] pt-[6px]">
        <Field
          label="Address of a page"
          value={input}
          onChangeText={(text) => {
            setInput(text);
            setFault(null);
          }}
          fault={fault}
          inputMode="url"
          autoFocus
          onSubmitEditing={() => void save()}
        />
        <Text className="font-ui text-small text-soft">
          It is in the Inbox at once; its text follows when there is a connection.
        </Text>
        <Button label="Save" kind="main" onPress={() => void save()} />
      </View>
    </Sheet>
  );
}
