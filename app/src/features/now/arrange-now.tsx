import { View } from 'react-native';
import { OrderedList } from '@/ui/ordered-list';
import { Switch } from '@/ui/setting';
import { Sheet } from '@/ui/sheet';
import { PART_NAMES, useNowParts } from './parts-store';

/** Which parts stand on Now, and in what order: by finger, pointer or keys. */
export function ArrangeNow({ onClose }: { onClose(): void }) {
  const { order, hidden, move, show } = useNowParts();
  const parts = order.map((id) => ({ id }));
  return (
    <Sheet title="Arrange Now" onClose={onClose}>
      <OrderedList
        name="Parts of Now"
        items={parts}
        titleOf={({ id }) => PART_NAMES[id]}
        positionInWords={(at) => `Number ${at + 1} of ${parts.length}`}
        onMove={move}
      >
        {({ id }) => (
          <View className="flex-1">
            <Switch label={PART_NAMES[id]} on={!hidden.includes(id)} onChange={(on) => show(id, on)} />
          </View>
        )}
      </OrderedList>
    </Sheet>
  );
}
