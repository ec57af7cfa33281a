import { noteText } from '@dorvel/core/notes';
import { Link } from 'expo-router';
import { memo, useMemo } from 'react';
import { Pressable, Text, View } from 'react-native';
import { useNotes } from '@/device/store/library';
import { namedList } from '@/ui/named-list';
import { notesFound } from './notes-view';

/** So many of them are named; the page of notes has them all. */
const NAMED = 3;

/** The reader's notes of no item that have what is looked for, above the items that have it. */
export const FoundNotes = memo(function FoundNotes({ written }: { written: string }) {
  const notes = useNotes();
  const found = useMemo(() => notesFound(notes ?? [], written), [notes, written]);
  if (found.length === 0) return null;
  return (
    <View className="px-[20px] pb-[6px]">
      <Text className="font-ui text-small font-semibold text-soft">
        {found.length === 1 ? 'In a note of yours' : `In ${found.length} notes of yours`}
      </Text>
      <View {...namedList('Notes found', Math.min(NAMED, found.length))}>
        {found.slice(0, NAMED).map((note) => (
          <View key={note.id} role="listitem">
            <Link href={`/notes?words=${encodeURIComponent(noteText(note).slice(0, 60))}`} asChild>
              <Pressable className="min-h-[44px] justify-center border-b border-line py-[6px]">
                <Text numberOfLines={2} className="font-read text-base text-ink">
                  {startOf(noteText(note))}
                </Text>
              </Pressable>
            </Link>
          </View>
        ))}
      </View>
    </View>
  );
});

/** The beginning of what is written, without the signs of Markdown. */
function startOf(written: string): string {
  return written
    .replace(/^[#>\s-]+/gm, '')
    .replace(/[*_`]/g, '')
    .replace(/\s+/g, ' ')
    .slice(0, 200);
}
