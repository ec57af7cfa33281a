import { Slot, useGlobalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { LIST_WIDTH, ListScreen } from '@/features/library/list-screen';
import { NowScreen } from '@/features/now/now-screen';
import { NothingOpen } from '@/features/reader/nothing-open';
import { useWide } from '@/ui/wide';
import type { Place } from './places';

/** A place with its list: on a wide screen the list stays beside what is open, on a phone one covers the other. */
export function PlaceFrame({ place }: { place: Place }) {
  const { id } = useGlobalSearchParams<{ id?: string }>();
  if (!useWide()) return <Slot />;
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

/** What a place shows before anything is open. */
export function PlaceStart({ place }: { place: Place }) {
  return useWide() ? <NothingOpen /> : <PlaceList place={place} openId={null} />;
}

function PlaceList({ place, openId }: { place: Place; openId: string | null }) {
  return place === 'now' ? <NowScreen openId={openId} /> : <ListScreen place={place} openId={openId} />;
}
