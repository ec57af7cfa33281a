import { fractionAbove, listeningMinutes } from '@dorvel/core/text';
import { inMinutes } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import Ellipsis from 'lucide-react/dist/esm/icons/ellipsis.mjs';
import Pause from 'lucide-react/dist/esm/icons/pause.mjs';
import Play from 'lucide-react/dist/esm/icons/play.mjs';
import RotateCcw from 'lucide-react/dist/esm/icons/rotate-ccw.mjs';
import SkipBack from 'lucide-react/dist/esm/icons/skip-back.mjs';
import SkipForward from 'lucide-react/dist/esm/icons/skip-forward.mjs';
import X from 'lucide-react/dist/esm/icons/x.mjs';
import { useMemo, useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { useVoicesHere } from '@/device/voice/voices-here';
import { Icon } from '@/ui/icon';
import { useKeys } from '@/ui/keys';
import { useWide } from '@/ui/wide';
import { CarView } from './car-view';
import { useListeningSettings } from './listening-settings-store';
import { ListeningSheet } from './listening-sheet';
import { SKIP_SECONDS } from './media-session';
import { usePlayer } from './player-store';
import { sleepWords } from './sleep';
import { VoiceSheet } from './voice-sheet';

/**
 * The player: stands at the bottom wherever the reader is, as long as something is being listened to.
 *
 * @param openId the item that is open in the reader, whose title need not be said again
 */
export function PlayerBar({ openId }: { openId: string | null }) {
  const { hearing, index, playing, ended, problem, sleep, pause, goOn, step, paragraph, skip, close, sayAgain } =
    usePlayer();
  const rate = useListeningSettings((state) => state.rate);
  const coming = useVoicesHere(({ places }) => comingWords(places));
  const router = useRouter();
  const wide = useWide();
  const [voiceShown, setVoiceShown] = useState(false);
  const [moreShown, setMoreShown] = useState(false);
  const [carShown, setCarShown] = useState(false);
  useKeys(
    useMemo(
      () => ({
        ',': () => step(-1),
        '.': () => step(1),
        '<': () => paragraph(-1),
        '>': () => paragraph(1),
        '[': () => skip(-SKIP_SECONDS),
        ']': () => skip(SKIP_SECONDS),
        r: sayAgain,
      }),
      [step, paragraph, skip, sayAgain],
    ),
  );
  if (!hearing) return null;
  const sentence = hearing.spoken[index];
  const fraction = ended || !sentence ? 1 : fractionAbove(hearing.starts, sentence.start);
  const words =
    problem ??
    (playing ? coming : null) ??
    (ended
      ? 'Heard to the end.'
      : [
          `${inMinutes(listeningMinutes(hearing.starts.length, rate) * (1 - fraction))} left to hear`,
          sleepWords(sleep, Date.now()),
        ]
          .filter(Boolean)
          .join(' · '));
  const what =
    hearing.itemId === openId ? (
      <Text className="flex-1 font-ui text-small text-ground" role="status">
        {words}
      </Text>
    ) : (
      <Pressable
        role="link"
        onPress={() => router.push(`/now/${hearing.itemId}`)}
        className="min-h-[44px] min-w-0 flex-1 justify-center"
      >
        <Text numberOfLines={1} className="font-read text-base font-semibold text-ground">
          {hearing.title}
        </Text>
        <Text className="font-ui text-small text-ground" role="status">
          {words}
        </Text>
      </Pressable>
    );
  const again = (
    <PlayerButton name="Say that again, slower" onPress={sayAgain}>
      <Icon of={RotateCcw} tone="ground" size={20} />
    </PlayerButton>
  );
  const stop = (
    <PlayerButton name="Stop listening" onPress={close}>
      <Icon of={X} tone="ground" size={20} />
    </PlayerButton>
  );
  const speed = (
    <PlayerButton name={`Speed and voice, now ${rate.toFixed(1)} times`} onPress={() => setVoiceShown(true)}>
      <Text className="font-ui text-base font-semibold text-ground">{rate.toFixed(1)}×</Text>
    </PlayerButton>
  );
  const more = (
    <PlayerButton name="More of listening" onPress={() => setMoreShown(true)}>
      <Icon of={Ellipsis} tone="ground" size={20} />
    </PlayerButton>
  );
  const steps = (
    <View className={`flex-row items-center ${wide ? 'gap-[10px]' : ''}`}>
      <PlayerButton name={`${SKIP_SECONDS} seconds back`} onPress={() => skip(-SKIP_SECONDS)}>
        <Text className="font-ui text-small text-ground">−{SKIP_SECONDS} s</Text>
      </PlayerButton>
      <PlayerButton name="Sentence back" onPress={() => step(-1)}>
        <Icon of={SkipBack} tone="ground" size={22} />
      </PlayerButton>
      <Pressable
        role="button"
        aria-label={playing ? 'Pause' : 'Go on listening'}
        onPress={playing ? pause : goOn}
        className="h-[52px] w-[52px] items-center justify-center rounded-[26px] bg-ground"
      >
        <Icon of={playing ? Pause : Play} tone="ink" size={26} />
      </Pressable>
      <PlayerButton name="Sentence forward" onPress={() => step(1)}>
        <Icon of={SkipForward} tone="ground" size={22} />
      </PlayerButton>
      <PlayerButton name={`${SKIP_SECONDS} seconds on`} onPress={() => skip(SKIP_SECONDS)}>
        <Text className="font-ui text-small text-ground">+{SKIP_SECONDS} s</Text>
      </PlayerButton>
    </View>
  );
  return (
    <View
      role="region"
      aria-label="Player"
      className={wide ? 'border-t border-line bg-ink' : 'px-[10px] pb-[8px] pt-[6px]'}
    >
      {wide ? (
        <View className="flex-row items-center gap-[14px] px-[20px] py-[4px]">
          {what}
          {steps}
          <View className="flex-1 flex-row justify-end">
            {again}
            {speed}
            {more}
            {stop}
          </View>
        </View>
      ) : (
        <View className="rounded-[20px] bg-ink px-[6px] py-[4px]">
          <View className="flex-row items-center justify-between pl-[12px]">
            {what}
            {again}
            {stop}
          </View>
          <View className="flex-row items-center justify-between">
            {speed}
            {steps}
            {more}
          </View>
        </View>
      )}
      {moreShown && (
        <ListeningSheet
          onClose={() => setMoreShown(false)}
          onCar={() => {
            setMoreShown(false);
            setCarShown(true);
          }}
        />
      )}
      {carShown && <CarView onClose={() => setCarShown(false)} />}
      {voiceShown && <VoiceSheet language={hearing.language} onClose={() => setVoiceShown(false)} />}
    </View>
  );
}

/** While a voice is on its way there is nothing to be heard yet. */
function comingWords(places: ReturnType<typeof useVoicesHere.getState>['places']): string | null {
  const part = Object.values(places).find((place) => typeof place === 'object');
  return part ? `The voice is coming, ${Math.round(part.coming * 100)} %` : null;
}

function PlayerButton(props: { name: string; onPress(): void; children: React.ReactNode }) {
  return (
    <Pressable
      role="button"
      aria-label={props.name}
      onPress={props.onPress}
      className="h-[48px] min-w-[48px] items-center justify-center rounded-[14px]"
    >
      {props.children}
    </Pressable>
  );
}
