import { Pressable, Text, View } from 'react-native';
import { Sheet } from '@/ui/sheet';
import type { ListRow } from './headed';

interface GoToSheetProps {
  rows: readonly ListRow[];
  /** Told the place among the rows. */
  onGo(at: number): void;
  onClose(): void;
}

/** The headings of a long list, to be jumped to: nothing has to be reached by scrolling. */
export function GoToSheet({ rows, onGo, onClose }: GoToSheetProps) {
  return (
    <Sheet title="Go to" onClose={onClose}>
      <View role="list" className="flex-row flex-wrap gap-[8px]">
        {rows.map((row, at) =>
          row.kind === 'item' ? null : (
            <View key={row.key} role="listitem">
              <Pressable
                role="button"
                aria-label={`${row.title}, ${row.count}`}
                onPress={() => {
                  onClose();
                  onGo(at);
                }}
                className="min-h-[44px] flex-row items-center gap-[8px] rounded-[12px] border border-soft px-[13px]"
              >
                <Text className="font-ui text-base text-ink">{row.title}</Text>
                <Text className="font-ui text-small text-soft">{row.count}</Text>
              </Pressable>
            </View>
          ),
        )}
      </View>
    </Sheet>
  );
}
