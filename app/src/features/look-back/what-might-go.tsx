import type { Item } from '@dorvel/core/model';
import { proposeLettingGo } from '@dorvel/core/queue';
import { proposalInWords, titleOf } from '@dorvel/core/wording';
import { useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { dayOf } from '@/device/store/day';
import { moves } from '@/features/items/moves';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { ItemLine, Part } from './items-of';

/** What might be let go, each with its reason; several at once, and undone from where they went. */
export function WhatMightGo({ items, today }: { items: readonly Item[]; today: string }) {
  const proposals = useMemo(() => proposeLettingGo(items, today, dayOf), [items, today]);
  const [staying, setStaying] = useState<ReadonlySet<string>>(new Set());
  if (proposals.length === 0) return null;
  const going = proposals.filter(({ item }) => !staying.has(item.id)).map(({ item }) => item);
  const toggle = (id: string) => {
    const next = new Set(staying);
    if (!next.delete(id)) next.add(id);
    setStaying(next);
  };
  return (
    <Part title="What might go">
      <Text className="font-ui text-base text-soft">
        Nothing goes by itself, and what goes can be brought back for 30 days.
      </Text>
      <View {...namedList('What might go', proposals.length)}>
        {proposals.map((proposal) => (
          <ItemLine key={proposal.item.id} item={proposal.item} says={proposalInWords(proposal)}>
            <label className="tick">
              <input
                type="checkbox"
                checked={!staying.has(proposal.item.id)}
                aria-label={`Let go: “${titleOf(proposal.item)}”`}
                onChange={() => toggle(proposal.item.id)}
              />
            </label>
          </ItemLine>
        ))}
      </View>
      <View className="items-start">
        <Button
          label={going.length === 1 ? 'Let this one go' : `Let these ${going.length} go`}
          kind="loss"
          disabled={going.length === 0}
          onPress={() => void moves.moveAll(going, 'let-go')}
        />
      </View>
    </Part>
  );
}
