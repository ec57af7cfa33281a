import { changedSince } from '@dorvel/core/dossier';
import type { Item } from '@dorvel/core/model';
import { titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { z } from 'zod';
import { readSetting, writeSetting } from '@/device/store/settings-storage';
import { namedList } from '@/ui/named-list';

const nameOf = (dossierId: string) => `dossier-seen.${dossierId}`;

/** What the pages of a dossier say otherwise since it was looked at last on this device. */
export function ChangedSince({ dossierId, items }: { dossierId: string; items: readonly Item[] }) {
  const [since] = useState(() => readSetting(nameOf(dossierId), z.number(), Date.now()));
  useEffect(() => () => writeSetting(nameOf(dossierId), Date.now()), [dossierId]);
  useEffect(() => writeSetting(nameOf(dossierId), since), [dossierId, since]);
  const changed = useMemo(() => changedSince(items, since), [items, since]);
  if (changed.length === 0) return null;
  return (
    <View role="region" aria-label="What has changed" className="gap-[6px] rounded-[14px] bg-sunken p-[14px]">
      <Text className="font-ui text-small font-semibold text-ink">
        {`${changed.length === 1 ? 'A page says' : `${changed.length} pages say`} something else than when you were here last:`}
      </Text>
      <View {...namedList('Changed pages', changed.length)}>
        {changed.map((item) => (
          <View key={item.id} role="listitem">
            <Link
              href={`/library/${item.id}`}
              className="min-h-[44px] py-[10px] font-ui text-base text-accent underline"
            >
              {titleOf(item)}
            </Link>
          </View>
        ))}
      </View>
    </View>
  );
}
