import type { Highlight, Item } from '@dorvel/core/model';
import { titleOf } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { OneHighlight } from '@/features/highlights/one-highlight';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { Part } from './items-of';

const SHOWN = 8;

/** What the highlights of a period say: a page to skim. */
export function MarkedInIt({ highlights, items }: { highlights: readonly Highlight[]; items: readonly Item[] }) {
  const [all, setAll] = useState(false);
  if (highlights.length === 0) return null;
  const shown = all ? highlights : highlights.slice(0, SHOWN);
  const titles = new Map(items.map((item) => [item.id, titleOf(item)]));
  return (
    <Part title="What you marked">
      <View {...namedList('What you marked', shown.length)}>
        {shown.map((highlight, at) => (
          <View key={highlight.id} role="listitem" className="gap-[2px] pt-[8px]">
            {shown[at - 1]?.itemId !== highlight.itemId && (
              <Text className="font-ui text-small text-soft">{titles.get(highlight.itemId)}</Text>
            )}
            <OneHighlight highlight={highlight}>{null}</OneHighlight>
          </View>
        ))}
      </View>
      {highlights.length > shown.length && (
        <View className="items-start">
          <Button label={`${highlights.length - shown.length} more highlights`} onPress={() => setAll(true)} />
        </View>
      )}
    </Part>
  );
}
