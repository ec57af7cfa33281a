import { SHIPPED_VOICES, type ShippedVoiceId } from '@dorvel/core/listening';
import { useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Sheet } from '@/ui/sheet';
import { hearVoice } from './hear-voice';
import { chosenVoice, useListeningSettings, voicesFor } from './listening-settings-store';
import { usePlayer } from './player-store';
import { SpeedChoice } from './speed-choice';

/** How fast, and in which voice. */
export function VoiceSheet({ language, onClose }: { language: string | null; onClose(): void }) {
  useListeningSettings((state) => state.voices);
  const { setVoice } = usePlayer();
  useVoicesArriving();
  const voices = voicesFor(language);
  const chosen = chosenVoice(language)?.id ?? '';
  return (
    <Sheet title="Speed and voice" onClose={onClose}>
      <View className="gap-[18px]">
        <SpeedChoice />
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
          {isShipped(chosen) && <Button label="Hear it say this sentence" onPress={() => hearVoice(chosen)} />}
          <Text className="font-ui text-small text-soft">
            Dorvel’s own voices need no connection once they are on this device; You shows which are.
          </Text>
        </View>
      </View>
    </Sheet>
  );
}

const isShipped = (id: string): id is ShippedVoiceId => SHIPPED_VOICES.some((voice) => voice.id === id);

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
