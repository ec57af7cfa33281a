import { hostOf } from '@dorvel/core/address';
import { suggestTidying, tidyingOf, withTidying } from '@dorvel/core/copies';
import type { Item } from '@dorvel/core/model';
import { sourceInLine } from '@dorvel/core/wording';
import { useMemo } from 'react';
import { Text, View } from 'react-native';
import { choose } from '@/device/store/changes';
import { useItems } from '@/device/store/items';
import type { KeptCopy } from '@/device/store/store';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';

/** Offers to take out what the reader took out of other copies from the same site. Nothing goes by itself. */
export function TidySuggestion({ item, copy }: { item: Item; copy: KeptCopy }) {
  const items = useItems();
  const show = useNotices((state) => state.show);
  const decided = tidyingOf(item.choices, copy.id) !== undefined;
  const found = useMemo(() => {
    if (decided || !items) return [];
    const site = hostOf(item.address);
    const tidied = items
      .filter((other) => site !== '' && hostOf(other.address) === site)
      .flatMap((other) => other.choices.tidied.value);
    return suggestTidying(copy.tree, tidied);
  }, [items, decided, item.address, copy]);
  if (found.length === 0) return null;
  const decide = (out: readonly number[]) => {
    const before = item.choices.tidied.value;
    void choose(item.id, { tidied: withTidying(item.choices, copy.id, copy.tree, out) });
    if (out.length > 0)
      show({
        text: out.length === 1 ? 'One passage taken out.' : `${out.length} passages taken out.`,
        action: { label: 'Undo', press: () => void choose(item.id, { tidied: before }) },
      });
  };
  const passages = found.length === 1 ? 'a passage' : `${found.length} passages`;
  return (
    <View className="mx-auto mb-[22px] w-full max-w-[560px] gap-[10px] rounded-[14px] border border-line bg-raised p-[14px]">
      <Text className="font-ui text-base text-ink">
        You took {passages} like {found.length === 1 ? 'one' : 'those'} here out of other texts from{' '}
        {sourceInLine(item)}.
      </Text>
      <View className="flex-row flex-wrap gap-[10px]">
        <Button label={found.length === 1 ? 'Take it out' : 'Take them out'} onPress={() => decide(found)} />
        <Button label="Leave the text as it is" onPress={() => decide([])} />
      </View>
    </View>
  );
}
