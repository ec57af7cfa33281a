import { RATE_RANGE } from '@dorvel/core/speech';
import Minus from 'lucide-react-native/icons/minus';
import Plus from 'lucide-react-native/icons/plus';
import { useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import { IconButton } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Icon } from '@/ui/icon';
import { Sheet } from '@/ui/sheet';
import { chosenVoice, useListeningSettings, voicesFor } from './listening-settings-store';
import { usePlayer } from './player-store';

const RATES = ['0.8', '1', '1.2', '1.5', '2'] as const;

/** How fast, and in which voice. */
export function VoiceSheet({ language, onClose }: { language: string | null; onClose(): void }) {
  const rate = useListeningSettings((state) => state.rate);
  useListeningSettings((state) => state.voices);
  const { setRate, setVoice } = usePlayer();
  useVoicesArriving();
  const voices = voicesFor(language);
  const chosen = chosenVoice(language)?.id ?? '';
  return (
    <Sheet title="Speed and voice" onClose={onClose}>
      <View className="gap-[18px]">
        <View className="gap-[8px]">
          <Text className="font-ui text-small font-semibold text-soft">Speed</Text>
          <View className="flex-row items-center gap-[10px]">
            <IconButton name="Slower" onPress={() => setRate(rate - RATE_RANGE.step)}>
              <Icon of={Minus} tone="ink" size={22} />
            </IconButton>
            <Text aria-live="polite" className="min-w-[64px] text-center font-ui text-base text-ink">
              {rate.toFixed(1)}×
            </Text>
            <IconButton name="Faster" onPress={() => setRate(rate + RATE_RANGE.step)}>
              <Icon of={Plus} tone="ink" size={22} />
            </IconButton>
          </View>
          <Choice
            oneLine
            name="Speed"
            value={String(rate)}
            onChange={(value) => setRate(Number(value))}
            options={RATES.map((value) => ({ value, label: `${value}×` }))}
          />
        </View>
        <View className="gap-[8px]">
          <Text className="font-ui text-small font-semibold text-soft">Voice</Text>
          <Choice
            name="Voice"
            value={chosen}
            onChange={(id) => {
              const voice = voices.find((each) => each.id === id);
              if (voice) setVoice(voice);
            }}
            options={voices.map(({ id, name }) => ({ value: id, label: name }))}
          />
          <Text className="font-ui text-small text-soft">
            Dorvel’s own voices are on this device and need no connection.
          </Text>
        </View>
      </View>
    </Sheet>
  );
}

/** Browsers tell of the device's voices a while after the start. */
function useVoicesArriving(): void {
  const [, again] = useState(0);
  useEffect(() => {
    if (!('speechSynthesis' in globalThis)) return undefined;
    const arrived = () => again((times) => times + 1);
    speechSynthesis.addEventListener('voiceschanged', arrived);
    return () => speechSynthesis.removeEventListener('voiceschanged', arrived);
  }, []);
}
