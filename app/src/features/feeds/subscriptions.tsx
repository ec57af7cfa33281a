import type { Feed } from '@dorvel/core/model';
import { useId, useState } from 'react';
import { Text, View } from 'react-native';
import { handOutText } from '@/device/cache/download-file';
import { Button } from '@/ui/button';
import { useFeedMoves } from './use-feeds';

/** The subscriptions as a file, out and in (OPML 2.0). */
export function Subscriptions({ feeds }: { feeds: readonly Feed[] }) {
  const id = useId();
  const { follow } = useFeedMoves();
  const [says, setSays] = useState<string | null>(null);
  const open = async (file: File | undefined) => {
    if (!file) return;
    const { readOpml } = await import('@/device/formats');
    const list = readOpml(await file.text());
    if (list === null) setSays(`${file.name} is no list of subscriptions. Choose an OPML file.`);
    else if (list.length === 0) setSays(`${file.name} has no feeds in it.`);
    else {
      const fresh = await follow(
        list.map(({ address, title, folders }) => ({
          address,
          title,
          tag: folders.length > 0 ? folders.join('/') : null,
        })),
      );
      setSays(
        `${list.length} ${list.length === 1 ? 'feed' : 'feeds'} in ${file.name}: ${fresh} new, ${list.length - fresh} followed already.`,
      );
    }
  };
  const save = async () => {
    const { subscriptionOf, writeOpml } = await import('@/device/formats');
    const opml = writeOpml('Feeds', Date.now(), feeds.map(subscriptionOf));
    handOutText('feeds.opml', 'text/x-opml', opml);
  };
  return (
    <View className="gap-[10px] pt-[18px]">
      <View className="flex-row flex-wrap items-center gap-[10px]">
        <label htmlFor={id} className="file-button">
          Bring in a list (OPML)
          <input
            id={id}
            type="file"
            accept=".opml,.xml,text/x-opml,application/xml,text/xml"
            onChange={(event) => {
              void open(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
        {feeds.length > 0 && <Button label="Take the list out (OPML)" onPress={() => void save()} />}
      </View>
      {says !== null && (
        <Text role="status" className="font-ui text-small text-ink">
          {says}
        </Text>
      )}
    </View>
  );
}
