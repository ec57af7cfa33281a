import type { Note } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { dayInWords, titleOf, whenWords } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, Pressable, Text, View } from 'react-native';
import { atHighlight } from '@/article/at-highlight';
import { changeNote } from '@/device/store/changes';
import { useToday } from '@/device/store/day';
import { useItemsById } from '@/device/store/items';
import { useHighlights, useItem, useNotes, usePins } from '@/device/store/library';
import { pinTo, unpin } from '@/features/pins/pinning';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { ScreenHeader } from '@/ui/screen-header';
import { Markdown } from './markdown';
import { useNoteSheet } from './note-store';
import { DEEPEST, type NotesWanted, type NoteThread, threadsOf } from './notes-view';

const WANTED: readonly { value: NotesWanted; label: string }[] = [
  { value: 'all', label: 'All' },
  { value: 'open', label: 'To do' },
  { value: 'done', label: 'Done' },
];

/**
 * What the reader wrote: all of it, or about one item; and what of it is to be done.
 *
 * @param sought words to begin with
 */
export function NotesScreen({ itemId, sought }: { itemId: string | null; sought: string }) {
  const notes = useNotes();
  const only = useItemsById().get(itemId ?? '');
  const write = useNoteSheet((state) => state.write);
  const [wanted, setWanted] = useState<NotesWanted>('all');
  const [words, setWords] = useState(sought);
  const threads = useMemo(() => threadsOf(notes ?? [], { wanted, words, itemId }), [notes, wanted, words, itemId]);
  return (
    <View className="flex-1 bg-ground">
      <FlatList
        data={threads}
        keyExtractor={({ note }) => note.id}
        initialNumToRender={10}
        contentContainerClassName="mx-auto w-full max-w-[640px] px-[20px] pb-[40px]"
        ListHeaderComponent={
          <View className="gap-[12px] pb-[6px]">
            <ScreenHeader title="Notes" aside={only ? `on ${titleOf(only)}` : ''} />
            <View className="flex-row">
              <Button
                label="Write a note"
                kind="main"
                onPress={() =>
                  write({
                    note: null,
                    itemId,
                    on: { kind: itemId === null ? 'nothing' : 'item' },
                    about: only ? titleOf(only) : null,
                  })
                }
              />
            </View>
            <Choice name="Which" options={WANTED} value={wanted} onChange={(value) => setWanted(value)} oneLine />
            <Field label="With these words" value={words} onChangeText={setWords} inputMode="search" />
            {threads.length === 0 && notes && (
              <Text className="font-ui text-base text-soft">
                {wanted === 'all' && words === ''
                  ? 'Nothing is written yet. Press w on any screen, or “Write a note” where you save an address.'
                  : 'There is nothing of that kind.'}
              </Text>
            )}
          </View>
        }
        renderItem={({ item: thread }) => (
          <View className="border-b border-line pb-[8px] pt-[14px]">
            <Thread thread={thread} depth={0} />
          </View>
        )}
      />
    </View>
  );
}

function Thread({ thread, depth }: { thread: NoteThread; depth: number }) {
  return (
    <View className={depth > 0 && depth <= DEEPEST ? 'border-l-[3px] border-line pl-[14px]' : ''}>
      <OneNote note={thread.note} />
      {thread.replies.map((reply) => (
        <Thread key={reply.note.id} thread={reply} depth={depth + 1} />
      ))}
    </View>
  );
}

function OneNote({ note }: { note: Note }) {
  const write = useNoteSheet((state) => state.write);
  const show = useNotices((state) => state.show);
  const today = useToday();
  const { task, dueOn } = note.choices;
  const text = noteText(note);
  const start = text.slice(0, 60);
  const isDone = task.value === 'done';
  const isPinned = usePins().has(note.id);
  const remove = () => {
    void changeNote(note, { removed: true });
    show({
      text: 'The note is removed.',
      action: { label: 'Undo', press: () => void changeNote(note, { removed: false }) },
    });
  };
  return (
    <View role="group" aria-label={start} className="gap-[2px] pb-[4px]">
      <View className="flex-row items-start gap-[4px]">
        {task.value !== 'none' && (
          <Pressable
            role="checkbox"
            aria-checked={isDone}
            aria-label={`Done: ${start}`}
            onPress={() => void changeNote(note, { task: isDone ? 'open' : 'done' })}
            className="ml-[-10px] h-[44px] w-[44px] items-center justify-center"
          >
            <View
              className={`h-[22px] w-[22px] items-center justify-center rounded-[6px] border-[1.5px] ${isDone ? 'border-ink bg-ink' : 'border-soft'}`}
            >
              {isDone && <Text className="font-ui text-small text-ground">✓</Text>}
            </View>
          </Pressable>
        )}
        <View className={`min-w-0 flex-1 ${task.value === 'none' ? '' : 'pt-[9px]'}`}>
          <Markdown written={text} />
        </View>
      </View>
      <Text className="font-ui text-small text-soft">
        {[
          `written ${whenWords(note.madeAt)}`,
          dueOn.value !== null &&
            `by ${dayInWords(dueOn.value)}${!isDone && dueOn.value < today ? ', which has passed' : ''}`,
        ]
          .filter(Boolean)
          .join(' · ')}
      </Text>
      <View className="flex-row flex-wrap items-center gap-x-[16px]">
        <TextButton label="Change" of={start} onPress={() => write({ note })} />
        <TextButton
          label="Write on it"
          of={start}
          onPress={() => write({ note: null, itemId: note.itemId, on: { kind: 'note', id: note.id }, about: start })}
        />
        <TextButton
          label={isPinned ? 'Take off Now' : 'Pin to Now'}
          of={start}
          onPress={() => (isPinned ? unpin : pinTo)(note.id, 'note', 'The note')}
        />
        <TextButton label="Remove" of={start} onPress={remove} />
        <WayBack note={note} />
      </View>
    </View>
  );
}

function TextButton({ label, of, onPress }: { label: string; of: string; onPress(): void }) {
  return (
    <Pressable
      role="button"
      aria-label={`${label}: ${of}`}
      onPress={onPress}
      className="min-h-[44px] min-w-[44px] justify-center"
    >
      <Text className="font-ui text-small text-accent underline">{label}</Text>
    </Pressable>
  );
}

/** To the passage, or to the item, that a note is about. */
function WayBack({ note }: { note: Note }) {
  const item = useItem(note.itemId ?? '');
  const highlights = useHighlights();
  if (!item) return null;
  const highlight =
    note.on.kind === 'highlight' ? highlights?.find(({ id }) => 'id' in note.on && id === note.on.id) : undefined;
  return (
    <Link href={`/library/${item.id}${highlight ? `?at=${atHighlight(highlight.id)}` : ''}`} asChild>
      <Pressable className="min-h-[44px] min-w-0 flex-1 justify-center">
        <Text numberOfLines={1} className="font-ui text-small text-accent underline">
          {highlight ? 'To the passage' : `On: ${titleOf(item)}`}
        </Text>
      </Pressable>
    </Link>
  );
}
