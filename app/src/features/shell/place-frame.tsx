import { Slot, useGlobalSearchParams } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { LIST_WIDTH, ListScreen } from '@/features/library/list-screen';
import { NowScreen } from '@/features/now/now-screen';
import { NothingOpen } from '@/features/reader/nothing-open';
import { useWide } from '@/ui/wide';
import type { Place } from './places';

/** A place with its list: on a wide screen the list stays beside what is open, on a phone one covers the other. */
export function PlaceFrame({ place }: { place: Place }) {
  const { id } = useGlobalSearchParams<{ id?: string }>();
  const covered = useJustCovered(id);
  if (!useWide())
    return (
      <View className="min-h-0 flex-1">
        {(id === undefined || covered) && (
          <View className={covered ? 'hidden' : 'min-h-0 flex-1'}>
            <PlaceList place={place} openId={null} />
          </View>
        )}
        <Slot />
      </View>
    );
  return (
    <View className="flex-1 flex-row">
      <View className="border-x border-line" style={{ width: LIST_WIDTH }}>
        <PlaceList place={place} openId={id ?? null} />
      </View>
      <View className="min-w-0 flex-1">
        <Slot />
      </View>
    </View>
  );
}

/**
 * True from the moment that an item covers the list until it has been seen: to take a long list apart costs as much as to
 * set the first screen of a text, so it is hidden first, and taken apart behind that.
 */
function useJustCovered(id: string | undefined): boolean {
  const [listed, list] = useState(id === undefined);
  useEffect(() => {
    if (id === undefined) {
      list(true);
      return undefined;
    }
    let timer: ReturnType<typeof setTimeout>;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => list(false));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [id]);
  return listed && id !== undefined;
}

/** What stands beside a list before anything is open; on a phone the list itself is all there is. */
export function PlaceStart() {
  return useWide() ? <NothingOpen /> : null;
}

function PlaceList({ place, openId }: { place: Place; openId: string | null }) {
  return place === 'now' ? <NowScreen openId={openId} /> : <ListScreen place={place} openId={openId} />;
}
