import type { Item } from '@dorvel/core/model';
import { inMinutes, sourceOf, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { SectionHeading } from '@/ui/section-heading';

/** A part of the look-back under its heading. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View role="region" aria-label={title} className="gap-[8px]">
      <SectionHeading>{title}</SectionHeading>
      {children}
    </View>
  );
}

/** One item in a line, leading to it, with what is said of it. */
export function ItemLine({ item, says, children }: { item: Item; says?: string; children?: ReactNode }) {
  const minutes = item.capture.page?.minutes;
  return (
    <View role="listitem" className="flex-row items-center gap-[8px] border-b border-line">
      <Link href={`/library/${item.id}`} asChild>
        <Pressable className="min-h-[44px] min-w-0 flex-1 justify-center gap-[2px] py-[8px]">
          <Text className="font-read text-row font-semibold text-ink">{titleOf(item)}</Text>
          <Text className="font-ui text-small text-soft">
            {sourceOf(item)}
            {minutes === undefined ? '' : ` · ${inMinutes(minutes)}`}
          </Text>
          {says === undefined ? null : <Text className="font-ui text-small text-accent">{says}</Text>}
        </Pressable>
      </Link>
      {children}
    </View>
  );
}

/** So many are shown before the rest is asked for. */
const SHOWN = 5;

/** Some items under a heading; nothing when there are none. */
export function ItemsOf({ title, items }: { title: string; items: readonly Item[] }) {
  const [all, setAll] = useState(false);
  if (items.length === 0) return null;
  const shown = all ? items : items.slice(0, SHOWN);
  return (
    <Part title={title}>
      <View {...namedList(title, shown.length)}>
        {shown.map((item) => (
          <ItemLine key={item.id} item={item} />
        ))}
      </View>
      {items.length > shown.length && (
        <View className="items-start">
          <Button
            label={`${items.length - shown.length} more`}
            name={`${items.length - shown.length} more under ${title}`}
            onPress={() => setAll(true)}
          />
        </View>
      )}
    </Part>
  );
}
