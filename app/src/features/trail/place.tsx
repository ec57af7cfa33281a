import type { Item } from '@dorvel/core/model';
import { placeAsked, placeInWords } from '@dorvel/core/place';
import { useRouter } from 'expo-router';
import { Text, View } from 'react-native';
import { choose } from '@/device/store/changes';
import { useFindQuery } from '@/features/find/find-store';
import { Button } from '@/ui/button';

/** Where an item was saved, or a picture taken, and what else was near there; nothing where that was not kept. */
export function ItemPlace({ item, onLeave }: { item: Item; onLeave?(): void }) {
  const router = useRouter();
  const place = item.choices.place.value;
  if (!place) return null;
  return (
    <View role="region" aria-label="Place" className="items-start gap-[8px]">
      <Text className="font-ui text-small text-soft">
        Place: {placeInWords(place)}
        {place.within > 0 ? `, give or take ${place.within} m` : ''}
      </Text>
      <View className="flex-row flex-wrap gap-[10px]">
        <Button
          label="What else is near there"
          onPress={() => {
            useFindQuery.getState().write(`near:${placeAsked(place)} `);
            useFindQuery.getState().settle();
            onLeave?.();
            router.navigate('/library');
          }}
        />
        <Button label="Forget the place" onPress={() => void choose(item.id, { place: null })} />
      </View>
    </View>
  );
}
