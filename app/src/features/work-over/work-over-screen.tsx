import type { Highlight } from '@dorvel/core/model';
import { ownNote } from '@dorvel/core/notes';
import { dayInWords, HIGHLIGHT_KIND_WORDS, sourceInLine, titleOf } from '@dorvel/core/wording';
import { putOff } from '@dorvel/core/working-over';
import { Link, useRouter } from 'expo-router';
import X from 'lucide-react/dist/esm/icons/x.mjs';
import { useState } from 'react';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { atHighlight } from '@/article/at-highlight';
import { changeHighlight, changeNote, ownNoteOf, writeNote, writeOwnNote } from '@/device/store/changes';
import { useToday } from '@/device/store/day';
import { useItem } from '@/device/store/library';
import { CardSheet } from '@/features/cards/card-sheet';
import { WritingField } from '@/features/notes/writing-field';
import { Button, IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { useNotices } from '@/ui/notices';
import { ScreenHeader } from '@/ui/screen-header';
import { useWide } from '@/ui/wide';
import { useWorkOver } from './use-work-over';

/** What was marked comes back, one passage after the other, to be put in the reader's own words. */
export function WorkOverScreen() {
  const work = useWorkOver();
  const router = useRouter();
  const next = work?.due[0];
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[980px] flex-grow gap-[18px] px-[20px] pb-[40px]"
    >
      <ScreenHeader
        title="Work it over"
        aside={work && work.due.length > 0 ? `${work.due.length} to go` : ''}
        action={
          <IconButton name="Close" onPress={() => router.dismissTo('/now')}>
            <Icon of={X} tone="ink" />
          </IconButton>
        }
      />
      {next ? (
        <Passage key={next.highlight.id} highlight={next.highlight} />
      ) : (
        work && (
          <View className="items-start gap-[14px] py-[10px]">
            <Text className="font-ui text-base text-ink">
              {work.nextOn === null
                ? 'All that you marked is in your own words, or done with.'
                : `Nothing waits for your words now. The next passage comes on ${dayInWords(work.nextOn)}.`}
            </Text>
            <Button label="All highlights" onPress={() => router.push('/marks')} />
          </View>
        )
      )}
    </ScrollView>
  );
}

/** One passage, beside the field for what the reader makes of it. */
function Passage({ highlight }: { highlight: Highlight }) {
  const { kind, passage, workedOver } = highlight.choices;
  const [written, setWritten] = useState('');
  const [carding, setCarding] = useState(false);
  const item = useItem(highlight.itemId);
  const today = useToday();
  const show = useNotices((state) => state.show);
  const wide = useWide();
  const text = written.trim();
  const decide = (set: typeof workedOver.value, says: string) => {
    void changeHighlight(highlight.id, { workedOver: set });
    show({
      text: says,
      action: {
        label: 'Undo',
        press: () => void changeHighlight(highlight.id, { workedOver: workedOver.value }),
      },
    });
  };
  const keep = async () => {
    const subject = ownNote.ofHighlight(highlight);
    const kept = await writeOwnNote(subject, await ownNoteOf(highlight.id), text);
    show({
      text: 'In your own words, on the passage.',
      action: { label: 'Undo', press: () => void writeOwnNote(subject, kept, '') },
    });
  };
  const makeTask = async () => {
    const { itemId, id } = highlight;
    const noteId = await writeNote(
      { itemId, on: { kind: 'highlight', id } },
      { text: text === '' ? passage.value.exact.slice(0, 300) : text, task: 'open', dueOn: null },
    );
    const task = await ownNoteOf(noteId);
    show({
      text: 'It is something to do, under Notes.',
      ...(task ? { action: { label: 'Undo', press: () => void changeNote(task, { removed: true }) } } : {}),
    });
  };
  return (
    <>
      <View className={wide ? 'flex-row gap-[32px]' : 'gap-[18px]'}>
        <View className={`min-w-0 gap-[8px] ${wide ? 'flex-1' : ''}`}>
          <p className="marked-words">
            <span className={`mark-sample mark-${kind.value}`}>{passage.value.exact}</span>
          </p>
          <Text className="font-ui text-small text-soft">
            {HIGHLIGHT_KIND_WORDS[kind.value]}
            {item ? ` · ${titleOf(item)}, ${sourceInLine(item)}` : ''}
          </Text>
          <Link href={`/library/${highlight.itemId}?at=${atHighlight(highlight.id)}`} asChild>
            <Pressable className="min-h-[44px] justify-center">
              <Text className="font-ui text-small text-accent underline">To the passage</Text>
            </Pressable>
          </Link>
        </View>
        <View className={`min-w-0 gap-[12px] ${wide ? 'flex-1' : ''}`}>
          <WritingField label="In your own words" value={written} onChangeText={setWritten} />
          <Button label="Keep these words" kind="main" disabled={text === ''} onPress={() => void keep()} />
          <View className="flex-row flex-wrap gap-[10px]">
            <Button label="Make a card" onPress={() => setCarding(true)} />
            <Button label="Make a task" onPress={() => void makeTask()} />
            <Button
              label="Later"
              onPress={() => decide(putOff(workedOver.value, today), later(workedOver.value.times))}
            />
            <Button
              label="Done with it"
              onPress={() => decide({ ...workedOver.value, done: true }, 'It is not laid before you again.')}
            />
          </View>
        </View>
      </View>
      {carding && (
        <CardSheet
          source={{ itemId: highlight.itemId, highlightId: highlight.id, passage: passage.value }}
          passage={passage.value.exact}
          language={item?.capture.page?.language ?? null}
          onClose={() => setCarding(false)}
        />
      )}
    </>
  );
}

const later = (times: number): string => (times === 0 ? 'It comes again in a week.' : 'It comes again in a month.');
