import type { Note } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { Pressable, Text, View } from 'react-native';
import { Markdown } from '@/features/notes/markdown';
import { useNoteSheet } from '@/features/notes/note-store';

/** What the reader wrote on a highlight or on its item, under it. */
export function NotesBelow({ notes }: { notes: readonly Note[] }) {
  const write = useNoteSheet((state) => state.write);
  return notes.map((note) => {
    const text = noteText(note);
    const start = text.slice(0, 60);
    return (
      <View
        key={note.id}
        role="group"
        aria-label={`Note: ${start}`}
        className="border-l-[3px] border-line pl-[14px] pt-[4px]"
      >
        <Markdown written={text} />
        <Pressable
          role="button"
          aria-label={`Change the note “${start}”`}
          onPress={() => write({ note })}
          className="min-h-[44px] min-w-[44px] justify-center self-start"
        >
          <Text className="font-ui text-small text-accent underline">Change</Text>
        </Pressable>
      </View>
    );
  });
}
