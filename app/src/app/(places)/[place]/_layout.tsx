import { Redirect, Slot, useGlobalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { LIST_WIDTH, ListScreen } from '@/features/library/list-screen';
import { isListPlace } from '@/features/shell/places';
import { useWide } from '@/ui/wide';

export default function PlaceLayout() {
  const { place, id } = useGlobalSearchParams<{ place: string; id?: string }>();
  const wide = useWide();
  if (!isListPlace(place)) return <Redirect href="/inbox" />;
  if (!wide) return <Slot />;
  return (
    <View className="flex-1 flex-row">
      <View className="border-r border-line" style={{ width: LIST_WIDTH }}>
        <ListScreen key={place} place={place} openId={id ?? null} />
      </View>
      <View className="min-w-0 flex-1">
        <Slot />
      </View>
    </View>
  );
}
