import type { Item } from '@dorvel/core/model';
import { momentWords } from '@dorvel/core/wording';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { Sheet } from '@/ui/sheet';

interface CopiesSheetProps {
  item: Item;
  /** The copy that is being read. */
  readingId: string | null;
  onClose(): void;
  onRead(copyId: string): void;
  onCompare(from: string, to: string): void;
}

/** All copies of an item: each can be read, and compared with the one before it. */
export function CopiesSheet({ item, readingId, onClose, onRead, onCompare }: CopiesSheetProps) {
  const { copies } = item.capture;
  return (
    <Sheet title="Copies of this page" onClose={onClose}>
      {copies.length === 1 && (
        <Text className="pb-[10px] font-ui text-base text-soft">
          There is one copy. When the page is fetched again and has changed, there will be two to compare.
        </Text>
      )}
      {copies.map((copy, index) => {
        const earlier = copies[index + 1];
        return (
          <View key={copy.id} className="gap-[8px] border-b border-line py-[12px]">
            <Text className="font-ui text-base font-semibold text-ink">
              Made {momentWords(copy.madeAt)}
              {copy.id === readingId ? ', the one you are reading' : ''}
            </Text>
            <Text className="font-ui text-small text-soft">
              {copy.wordCount.toLocaleString('en')} words
              {copy.origin === 'given' ? ', given by hand' : ''}
            </Text>
            <View className="flex-row flex-wrap gap-[10px]">
              {copy.id !== readingId && <Button label="Read this copy" onPress={() => onRead(copy.id)} />}
              {earlier && (
                <Button label="What changed since the one before" onPress={() => onCompare(earlier.id, copy.id)} />
              )}
            </View>
          </View>
        );
      })}
    </Sheet>
  );
}
