import { inMinutes, titleOf } from '@dorvel/core/wording';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { useNotices } from '@/ui/notices';
import { Setting, Switch } from '@/ui/setting';
import { Sheet } from '@/ui/sheet';
import { useListeningSettings } from './listening-settings-store';
import { nextInQueue } from './next-in-queue';
import { usePlayer } from './player-store';
import { Pronunciations } from './pronunciations';
import { type Sleep, SLEEP_MINUTES } from './sleep';
import { WhatIsSaid } from './what-is-said';

/** What else can be said to the player: paragraphs, when it sleeps, what comes behind, and what is said at all. */
export function ListeningSheet({ onClose, onCar }: { onClose(): void; onCar(): void }) {
  const show = useNotices((state) => state.show);
  const { hearing, paragraph, lookUp } = usePlayer();
  const [wordsShown, setWordsShown] = useState(false);
  if (!hearing) return null;
  if (wordsShown) return <Pronunciations onClose={() => setWordsShown(false)} />;
  return (
    <Sheet title="Listening" onClose={onClose}>
      <View className="gap-[18px]">
        <View className="flex-row flex-wrap gap-[8px]">
          <Button label="Paragraph back" onPress={() => paragraph(-1)} />
          <Button label="Paragraph on" onPress={() => paragraph(1)} />
          <Button
            label="Look that up later"
            onPress={() => {
              onClose();
              void lookUp().then(() => show({ text: 'The last ten words are marked as a question.' }));
            }}
          />
          <Button label="Car view" onPress={onCar} />
        </View>
        <SleepChoice />
        <Then after={hearing.itemId} />
        <WhatIsSaid />
        <Button label="How words are said" onPress={() => setWordsShown(true)} />
        <Text className="font-ui text-small text-soft">
          What is said changes with the next article, or when this one is begun again.
        </Text>
      </View>
    </Sheet>
  );
}

const SLEEPS = ['never', ...SLEEP_MINUTES.map(String), 'part', 'article'];
const SLEEP_LABELS: Readonly<Record<string, string>> = {
  never: 'Never',
  part: 'End of this part',
  article: 'End of the article',
};

function SleepChoice() {
  const { sleep, setSleep } = usePlayer();
  const [minutes, setMinutes] = useState<string | null>(null);
  const toSleep = (value: string): Sleep =>
    value === 'never' || value === 'part' || value === 'article'
      ? { until: value }
      : { until: 'time', at: Date.now() + Number(value) * 60_000 };
  return (
    <Setting label="Sleep timer">
      <Choice
        oneLine
        name="Sleep timer"
        value={sleep.until === 'time' ? (minutes ?? '') : sleep.until}
        onChange={(value) => {
          setMinutes(value);
          setSleep(toSleep(value));
        }}
        options={SLEEPS.map((value) => ({ value, label: SLEEP_LABELS[value] ?? `${value} min` }))}
      />
    </Setting>
  );
}

/** What is read behind this article, if anything. */
function Then({ after }: { after: string }) {
  const { goOnWithQueue, change } = useListeningSettings();
  const next = useLiveQuery(() => nextInQueue(after), [after]);
  const about = next
    ? `Next: ${titleOf(next.item)}, ${inMinutes(next.item.capture.page?.minutes ?? 0)}`
    : 'Nothing stands below it in the Queue on this device.';
  return (
    <Switch
      label="Go on with the Queue behind this article"
      about={next === undefined ? ' ' : about}
      on={goOnWithQueue}
      onChange={(on) => change({ goOnWithQueue: on })}
    />
  );
}
