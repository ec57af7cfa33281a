import type { Item, Note, SavedSearch } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { useRouter } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, Text, View } from 'react-native';
import { useItemsById } from '@/device/store/items';
import { useNotes, usePins, useSearches } from '@/device/store/library';
import { useFindQuery } from '@/features/find/find-store';
import { useNoteSheet } from '@/features/notes/note-store';
import { unpin } from '@/features/pins/pinning';

type Pinned = { kind: 'item'; item: Item } | { kind: 'note'; note: Note } | { kind: 'search'; search: SavedSearch };

/** What the reader pinned and what of it is still there, what was pinned first before the others. */
export function usePinned(): Pinned[] {
  const pins = usePins();
  const items = useItemsById();
  const notes = useNotes();
  const searches = useSearches();
  return [...pins.values()].flatMap(({ id, of }): Pinned[] => {
    if (of === 'item') {
      const item = items.get(id);
      return item && item.choices.stage.value !== 'let-go' ? [{ kind: 'item', item }] : [];
    }
    if (of === 'note') return (notes ?? []).filter((each) => each.id === id).map((note) => ({ kind: 'note', note }));
    return (searches ?? []).filter((each) => each.id === id).map((search) => ({ kind: 'search', search }));
  });
}

/** The rows of what is pinned: an item as everywhere, a note's first lines, a search to be made. */
export function PinnedRows({ pinned, row }: { pinned: readonly Pinned[]; row(item: Item): ReactNode }) {
  const router = useRouter();
  return pinned.map((each) => {
    if (each.kind === 'item') return row(each.item);
    if (each.kind === 'note') {
      const text = noteText(each.note);
      return (
        <Line
          key={each.note.id}
          name={`Note: ${text.slice(0, 80)}`}
          text={text}
          says="Note"
          onPress={() => useNoteSheet.getState().write({ note: each.note })}
          onUnpin={() => unpin(each.note.id, 'note', 'The note')}
        />
      );
    }
    const { written, scope } = each.search.choices;
    return (
      <Line
        key={each.search.id}
        name={`Find ${written.value}`}
        text={written.value}
        says="Search"
        onPress={() => {
          useFindQuery.getState().write(written.value);
          useFindQuery.getState().lookIn(scope.value);
          router.push('/library');
        }}
        onUnpin={() => unpin(each.search.id, 'search', 'The search')}
      />
    );
  });
}

function Line(props: { name: string; text: string; says: string; onPress(): void; onUnpin(): void }) {
  return (
    <View role="listitem" className="flex-row items-center border-b border-line pl-[20px] pr-[12px]">
      <Pressable
        role="button"
        aria-label={props.name}
        onPress={props.onPress}
        className="min-h-[44px] min-w-0 flex-1 justify-center gap-[2px] py-[11px]"
      >
        <Text numberOfLines={3} className="font-read text-row text-ink">
          {props.text}
        </Text>
        <Text className="font-ui text-small text-soft">{props.says}</Text>
      </Pressable>
      <Pressable
        role="button"
        aria-label={`Take off Now: ${props.text.slice(0, 60)}`}
        onPress={props.onUnpin}
        className="min-h-[44px] justify-center rounded-[12px] px-[10px]"
      >
        <Text className="font-ui text-small text-accent">Take off</Text>
      </Pressable>
    </View>
  );
}
