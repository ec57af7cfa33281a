import type { HighlightedItem } from '@dorvel/core/formats';
import { type Highlight, HighlightKind } from '@dorvel/core/model';
import { notesUnder } from '@dorvel/core/notes';
import { HIGHLIGHT_KIND_WORDS, sourceOf, titleOf } from '@dorvel/core/wording';
import { Link, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, Pressable, Text, View } from 'react-native';
import { useItems, useItemsById } from '@/device/store/items';
import { useHighlights, useNotes } from '@/device/store/library';
import { readApart } from '@/device/workers/bring-in/bring-in';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { FileButton } from '@/ui/file-button';
import { useNotices } from '@/ui/notices';
import { ScreenHeader } from '@/ui/screen-header';
import { Setting } from '@/ui/setting';
import { Sheet } from '@/ui/sheet';
import { TakeAlong } from './export-highlights';
import { useGathered } from './gathered-store';
import { HighlightSheet } from './highlight-sheet';
import { ALL_HIGHLIGHTS, facetsOf, highlightsByItem, type HighlightsWanted } from './highlights-view';
import { importedInWords, importHighlights } from './import-highlights';
import { NarrowMarks } from './narrow-highlights';
import { NotesBelow } from './notes-below';
import { HighlightButton, OneHighlight } from './one-highlight';

const KINDS: readonly { value: HighlightKind | 'all'; label: string }[] = [
  { value: 'all', label: 'All' },
  ...HighlightKind.options.map((value) => ({ value, label: HIGHLIGHT_KIND_WORDS[value] })),
];

/** All that the reader marked, or all of one item: to be narrowed, gone back to, copied, taken along. */
export function HighlightsScreen({ itemId }: { itemId: string | null }) {
  const highlights = useHighlights();
  const notes = useNotes();
  const items = useItems();
  const [wanted, setWanted] = useState<HighlightsWanted>(ALL_HIGHLIGHTS);
  const narrow = (changes: Partial<HighlightsWanted>) => setWanted({ ...wanted, ...changes });
  const [openId, setOpenId] = useState<string | null>(null);
  const marked = useMemo(
    () => highlightsByItem(highlights ?? [], notes ?? [], items ?? [], { ...wanted, itemId }),
    [highlights, notes, items, itemId, wanted],
  );
  const facets = useMemo(
    () => facetsOf(highlightsByItem(highlights ?? [], notes ?? [], items ?? [], { ...ALL_HIGHLIGHTS, itemId })),
    [highlights, notes, items, itemId],
  );
  const gathered = useGathered();
  // Of what was gathered some may have been removed since.
  const gatheredCount = highlights?.filter(({ id }) => gathered.ids.includes(id)).length ?? 0;
  const router = useRouter();
  const [exchangeShown, setExchangeShown] = useState(false);
  const gatherAll = () => {
    gathered.gather(marked.flatMap((each) => each.highlights.map(({ id }) => id)));
    setExchangeShown(false);
  };
  const count = marked.reduce((sum, each) => sum + each.highlights.length, 0);
  const opened = highlights?.find(({ id }) => id === openId);
  const only = useItemsById().get(itemId ?? '');
  return (
    <View className="flex-1 bg-ground">
      <FlatList
        data={marked}
        keyExtractor={({ item }) => item.id}
        initialNumToRender={8}
        contentContainerClassName="mx-auto w-full max-w-[640px] px-[20px] pb-[40px]"
        ListHeaderComponent={
          <View className="gap-[12px] pb-[6px]">
            <ScreenHeader title="Highlights" aside={only ? `in ${titleOf(only)}` : inWords(count, marked.length)} />
            {!only && (
              <View className="items-start">
                <Button label="Work it over" onPress={() => router.push('/work-over')} />
              </View>
            )}
            <Choice name="Kind" options={KINDS} value={wanted.kind} onChange={(kind) => narrow({ kind })} oneLine />
            <Field
              label="With these words"
              value={wanted.words}
              onChangeText={(words) => narrow({ words })}
              inputMode="search"
            />
            <NarrowMarks wanted={wanted} facets={facets} onChange={narrow}>
              {gatheredCount > 0 && (
                <Button label={`Gathered: ${gatheredCount}`} onPress={() => router.push('/gathered')} />
              )}
              <Button label="Take along, bring in" onPress={() => setExchangeShown(true)} />
            </NarrowMarks>
            {marked.length === 0 && highlights && notes && (
              <Text className="font-ui text-base text-soft">
                {wanted === ALL_HIGHLIGHTS
                  ? 'Nothing is marked yet. Select words in an article, and say what they are for.'
                  : 'Nothing of that is marked.'}
              </Text>
            )}
          </View>
        }
        renderItem={({ item: each }) => <HighlightsOfItem marked={each} onOpen={setOpenId} />}
      />
      {exchangeShown && (
        <Sheet title="Take along, bring in" onClose={() => setExchangeShown(false)}>
          <View className="gap-[18px]">
            {marked.length > 0 && (
              <Setting
                label={count === 0 ? 'What is on the page' : `What is on the page: ${inWords(count, marked.length)}`}
              >
                <TakeAlong marked={marked} onDone={() => setExchangeShown(false)} />
                {count > 0 && (
                  <View className="flex-row">
                    <Button label="Gather all" onPress={gatherAll} />
                  </View>
                )}
              </Setting>
            )}
            {itemId === null && (
              <Setting label="Highlights made elsewhere">
                <BringIn onDone={() => setExchangeShown(false)} />
              </Setting>
            )}
          </View>
        </Sheet>
      )}
      {opened && <HighlightSheet key={opened.id} highlight={opened} onClose={() => setOpenId(null)} />}
    </View>
  );
}

function inWords(count: number, items: number): string {
  if (count === 0) return '';
  return `${count} in ${items === 1 ? '1 item' : `${items} items`}`;
}

function HighlightsOfItem({ marked, onOpen }: { marked: HighlightedItem; onOpen(id: string): void }) {
  const { item, highlights } = marked;
  return (
    <View role="group" aria-label={titleOf(item)} className="border-b border-line pb-[12px] pt-[14px]">
      <Link href={`/library/${item.id}`} asChild>
        <Pressable className="min-h-[44px] justify-center">
          <Text className="font-read text-row font-semibold text-ink">{titleOf(item)}</Text>
          <Text className="font-ui text-small text-soft">{sourceOf(item)}</Text>
        </Pressable>
      </Link>
      {highlights.map((highlight) => (
        <View key={highlight.id} className="py-[8px]">
          <OneHighlight highlight={highlight}>
            <HighlightButton label="Change" highlight={highlight} onPress={() => onOpen(highlight.id)} />
            <Gather highlight={highlight} />
          </OneHighlight>
          <NotesBelow notes={notesUnder(marked, highlight.id)} />
        </View>
      ))}
      <NotesBelow notes={notesUnder(marked, null)} />
    </View>
  );
}

/** Lays a highlight with those that are to be taken along, or takes it from them. */
function Gather({ highlight }: { highlight: Highlight }) {
  const { ids, gather, drop } = useGathered();
  const on = ids.includes(highlight.id);
  return (
    <HighlightButton
      label={on ? 'Gathered' : 'Gather'}
      highlight={highlight}
      on={on}
      onPress={() => (on ? drop([highlight.id]) : gather([highlight.id]))}
    />
  );
}

/** Highlights made elsewhere: from web annotations, a table, or quotations as plain text. */
function BringIn({ onDone }: { onDone(): void }) {
  const show = useNotices((state) => state.show);
  const bring = async (file: File) => {
    const read = await readApart((from) => from.highlights(file)).catch((error: unknown) => ({
      highlights: [],
      faults: [`${file.name} cannot be read (${error instanceof Error ? error.message : 'damaged'}).`],
    }));
    const brought = await importHighlights(read.highlights);
    onDone();
    show({
      text: importedInWords(brought, read.faults),
      ...(read.highlights.length > 0 ? { action: { label: 'Undo', press: () => void brought.takeBack() } } : {}),
    });
  };
  return (
    <View className="items-start gap-[6px]">
      <FileButton
        label="Bring in highlights"
        accept=".json,.jsonld,.csv,.tsv,.txt,.md"
        onFile={(file) => void bring(file)}
      />
      <Text className="font-ui text-small text-soft">
        Web annotations, a table with a column of quotations, or quotations as plain text, as e-book readers write them.
      </Text>
    </View>
  );
}
