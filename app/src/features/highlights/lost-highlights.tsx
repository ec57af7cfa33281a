import { liveText } from '@dorvel/core/notes';
import { useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import type { PlacedHighlight } from '@/article/at-highlight';
import { useOwnNote } from '@/device/store/library';
import { SectionHeading } from '@/ui/section-heading';
import { HighlightSheet } from './highlight-sheet';

/** Under an article: what was marked in it and does not stand in this copy any more. Never dropped, never put elsewhere. */
export function LostHighlights({ marks }: { marks: readonly PlacedHighlight[] }) {
  const [openId, setOpenId] = useState<string | null>(null);
  const lost = marks.filter(({ placed }) => placed === null).map(({ mark }) => mark);
  const opened = lost.find(({ id }) => id === openId);
  if (lost.length === 0) return null;
  return (
    <View
      role="region"
      aria-label="Lost their place"
      className="mx-auto mt-[36px] w-full max-w-[560px] border-t border-line pt-[20px]"
    >
      <SectionHeading>Lost their place in this copy</SectionHeading>
      <Text className="font-ui text-small text-soft">
        These words are not here any more. They stand in an earlier copy.
      </Text>
      <View role="list">
        {lost.map(({ id, choices }) => (
          <View key={id} role="listitem" className="border-b border-line">
            <Pressable role="button" onPress={() => setOpenId(id)} className="min-h-[44px] justify-center py-[8px]">
              <span className="marked-words">
                <span className={`mark-sample mark-${choices.kind.value}`}>{choices.passage.value.exact}</span>
              </span>
              <OwnNote highlightId={id} />
            </Pressable>
          </View>
        ))}
      </View>
      {opened && <HighlightSheet key={opened.id} highlight={opened} onClose={() => setOpenId(null)} />}
    </View>
  );
}

function OwnNote({ highlightId }: { highlightId: string }) {
  const text = liveText(useOwnNote(highlightId));
  return text === '' ? null : <Text className="font-ui text-base text-ink">{text}</Text>;
}
