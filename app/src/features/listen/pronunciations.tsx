import X from 'lucide-react/dist/esm/icons/x.mjs';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { Button, IconButton } from '@/ui/button';
import { Field } from '@/ui/field';
import { Icon } from '@/ui/icon';
import { namedList } from '@/ui/named-list';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';
import { chosenVoice, useListeningSettings } from './listening-settings-store';
import { usePlayer } from './player-store';

/** The reader's own list of how words are said. */
export function Pronunciations({ onClose }: { onClose(): void }) {
  const { own, change } = useListeningSettings();
  const [written, setWritten] = useState('');
  const [said, setSaid] = useState('');
  const ready = written.trim() !== '' && said.trim() !== '';
  const add = () => {
    if (!ready) return;
    const others = own.filter((each) => each.written !== written.trim());
    change({ own: [...others, { written: written.trim().slice(0, 80), said: said.trim().slice(0, 200) }] });
    setWritten('');
    setSaid('');
  };
  return (
    <Sheet title="How words are said" onClose={onClose}>
      <View className="gap-[14px]">
        <Text className="font-ui text-small text-soft">
          A name that the voice gets wrong: write it as it stands in the text, and as it would be written if it were
          spelled as it sounds. A capital counts; a small letter stands for both.
        </Text>
        <Field label="As it stands in the text" value={written} onChangeText={setWritten} />
        <Field label="As it is said" value={said} onChangeText={setSaid} onSubmitEditing={add} />
        <View className="flex-row flex-wrap gap-[8px]">
          <Button label="Add" kind="main" disabled={!ready} onPress={add} />
          <Button label="Hear it" disabled={said.trim() === ''} onPress={() => hear(said)} />
        </View>
        {own.length > 0 && (
          <View {...namedList('Your words', own.length)}>
            {own.map((each) => (
              <View key={each.written} role="listitem" className="flex-row items-center border-b border-line">
                <Text className="flex-1 font-ui text-base text-ink">
                  {each.written} → {each.said}
                </Text>
                <IconButton
                  name={`Take ${each.written} off the list`}
                  onPress={() => change({ own: own.filter((other) => other !== each) })}
                >
                  <Icon of={X} tone="ink" size={20} />
                </IconButton>
              </View>
            ))}
          </View>
        )}
      </View>
    </Sheet>
  );
}

/** Says a word as it is written here, in the voice that reads the present text. */
function hear(said: string): void {
  const { hearing, pause } = usePlayer.getState();
  pause();
  const utterance = {
    index: 0,
    kind: 'sentence',
    begins: true,
    language: null,
    start: 0,
    end: 0,
    said: () => ({ text: said, pieces: [] }),
    leadMs: 0,
    pauseMs: 0,
  } as const;
  const nothing = () => {};
  const narrator = chosenVoice(hearing?.language ?? null)?.narrator([utterance], 1, {
    begun: nothing,
    heard: nothing,
    ended: () => narrator?.close(),
    interrupted: nothing,
    failed: (text) => useNotices.getState().show({ text }),
  });
  narrator?.play(0);
}
