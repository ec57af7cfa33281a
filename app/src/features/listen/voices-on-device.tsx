import { SHIPPED_VOICES, type ShippedVoice } from '@dorvel/core/listening';
import { useEffect } from 'react';
import { Text, View } from 'react-native';
import { useVoicesHere, type VoicePlace } from '@/device/voice/voices-here';
import { Button } from '@/ui/button';
import { SectionHeading } from '@/ui/section-heading';
import { hearVoice } from './hear-voice';

/** Which of the voices that ship are on this device, what they take, and what brings or drops them. */
export function VoicesOnDevice() {
  const { places, look } = useVoicesHere();
  useEffect(() => void look(), [look]);
  return (
    <View className="gap-[6px]">
      <SectionHeading>Voices</SectionHeading>
      <Text className="font-ui text-small text-soft">
        A voice comes to this device when a text in its language stands in Inbox or Queue, or when you listen to one.
        From then on it needs no connection.
      </Text>
      {SHIPPED_VOICES.map((voice) => (
        <VoiceRow key={voice.id} voice={voice} place={places[voice.id] ?? 'away'} />
      ))}
    </View>
  );
}

function VoiceRow({ voice, place }: { voice: ShippedVoice; place: VoicePlace }) {
  const { bring, drop } = useVoicesHere();
  const fetchIt = () =>
    void bring(voice.id).catch(() => {
      // The row says so.
    });
  return (
    <View
      role="group"
      aria-label={voice.name}
      className="flex-row flex-wrap items-center gap-[8px] border-t border-line py-[6px]"
    >
      <View className="min-w-[120px] flex-1">
        <Text className="font-ui text-base text-ink">{voice.name}</Text>
        <Text className="font-ui text-small text-soft" role="status">
          {placeWords(voice, place)}
        </Text>
      </View>
      {place === 'here' ? (
        <>
          <Button label="Hear it" name={`Hear ${voice.name}`} onPress={() => hearVoice(voice.id)} />
          <Button label="Remove" name={`Remove ${voice.name} from this device`} onPress={() => void drop(voice.id)} />
        </>
      ) : typeof place === 'string' ? (
        <Button label="Fetch" name={`Fetch ${voice.name}`} onPress={fetchIt} />
      ) : null}
    </View>
  );
}

function placeWords({ files }: ShippedVoice, place: VoicePlace): string {
  const size = `${(files.reduce((sum, { bytes }) => sum + bytes, 0) / 1_000_000).toFixed(1)} MB`;
  if (place === 'here') return `On this device, ${size}`;
  if (place === 'away') return `Not on this device, ${size}`;
  if (place === 'failed') return 'It could not be fetched. Try again when you are online.';
  return `Coming, ${Math.round(place.coming * 100)} %`;
}
