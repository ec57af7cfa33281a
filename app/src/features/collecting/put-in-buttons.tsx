import { View } from 'react-native';
import type { NewEntry } from '@/device/store/dossier-changes';
import { useDossiers } from '@/device/store/library';
import { Button } from '@/ui/button';
import { putIn, usePutIn } from './put-in-store';

interface PutInButtonsProps {
  things: readonly NewEntry[];
  /** Told before something is done: a sheet closes. */
  onPress?(): void;
}

/** Puts things into the dossier that was used last by one press, or into another. */
export function PutInButtons({ things, onPress }: PutInButtonsProps) {
  const last = useDossiers()?.[0];
  const ask = usePutIn((state) => state.ask);
  const title = last?.choices.title.value ?? '';
  return (
    <View className="flex-row flex-wrap gap-[10px]">
      {last && (
        <View className="min-w-[150px] flex-1 basis-[45%]">
          <Button
            label={`Into “${title.length > 30 ? `${title.slice(0, 29)}…` : title}”`}
            name={`Into “${title}”`}
            disabled={things.length === 0}
            onPress={() => {
              onPress?.();
              void putIn({ id: last.id, title }, things);
            }}
          />
        </View>
      )}
      <View className="min-w-[150px] flex-1 basis-[45%]">
        <Button
          label={last ? 'Into another dossier…' : 'Into a dossier…'}
          disabled={things.length === 0}
          onPress={() => {
            onPress?.();
            ask(things);
          }}
        />
      </View>
    </View>
  );
}
