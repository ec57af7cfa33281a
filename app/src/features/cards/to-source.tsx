import { placePassage } from '@dorvel/core/highlight';
import type { Card } from '@dorvel/core/model';
import { titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { useMemo } from 'react';
import { Pressable, Text } from 'react-native';
import { atHighlight } from '@/article/at-highlight';
import { plainTextOf } from '@/device/cache/snapshot-cache';
import { useCopy, useItem } from '@/device/store/library';

/** The way back from a card to the passage that it was made of. */
export function ToSource({ source }: { source: NonNullable<Card['source']> }) {
  const item = useItem(source.itemId);
  const copy = useCopy(item?.capture.page?.copyId);
  const { highlightId, passage } = source;
  const at = useMemo(() => {
    if (highlightId) return `?at=${atHighlight(highlightId)}`;
    const placed = copy && passage ? placePassage(plainTextOf(copy).plain.text, passage) : null;
    return placed ? `?at=${placed.start}-${placed.end}` : '';
  }, [highlightId, copy, passage]);
  if (!item) return null;
  return (
    <Link href={`/library/${item.id}${at}`} asChild>
      <Pressable className="min-h-[44px] min-w-0 flex-1 justify-center">
        <Text numberOfLines={1} className="font-ui text-small text-accent underline">
          From: {titleOf(item)}
        </Text>
      </Pressable>
    </Link>
  );
}
