import type { MarkedItem } from '@dorvel/core/formats';
import { HIGHLIGHT_KIND_WORDS, HighlightKind, type Highlight } from '@dorvel/core/model';
import { sourceOf, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, Pressable, Text, View } from 'react-native';
import { handOutFile } from '@/device/hand-out';
import { useHighlights, useItems } from '@/device/library';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { FileButton } from '@/ui/file-button';
import { useNotices } from '@/ui/notices';
import { PlaceHeader } from '@/ui/place-header';
import { bringIn, broughtInWords } from './bring-in';
import { HighlightSheet } from './highlight-sheet';
import { marksByItem } from './marks-view';
import { atMark } from './use-marks-in-text';

const KINDS: readonly { value: HighlightKind | 'all'; label: string }[] = [
  { value: 'all', label: 'All' },
  ...HighlightKind.options.map((value) => ({ value, label: HIGHLIGHT_KIND_WORDS[value] })),
];

/** All that the reader marked, or all of one item: to be narrowed, gone back to, copied, taken along. */
export function MarksScreen({ itemId }: { itemId: string | null }) {
  const highlights = useHighlights();
  const items = useItems();
  const [kind, setKind] = useState<HighlightKind | 'all'>('all');
  const [words, setWords] = useState('');
  const [openId, open] = useState<string | null>(null);
  const marked = useMemo(
    () => marksByItem(highlights ?? [], items ?? [], { itemId, kind, words }),
    [highlights, items, itemId, kind, words],
  );
  const count = marked.reduce((sum, each) => sum + each.highlights.length, 0);
  const opened = highlights?.find(({ id }) => id === openId);
  const only = itemId === null ? undefined : items?.find(({ id }) => id === itemId);
  return (
    <View className="flex-1 bg-ground">
      <FlatList
        data={marked}
        keyExtractor={({ item }) => item.id}
        initialNumToRender={8}
        contentContainerClassName="mx-auto w-full max-w-[640px] px-[20px] pb-[40px]"
        ListHeaderComponent={
          <View className="gap-[12px] pb-[6px]">
            <PlaceHeader
              title="Highlights"
              aside={only ? `in ${titleOf(only)}` : inWords(count, marked.length)}
            />
            <Choice name="Kind" options={KINDS} value={kind} onChange={(value) => setKind(value)} oneLine />
            <Field label="With these words" value={words} onChangeText={setWords} inputMode="search" />
            {count > 0 && <TakeAlong marked={marked} />}
            {itemId === null && <BringIn />}
            {count === 0 && highlights && (
              <Text className="font-ui text-base text-soft">
                {kind === 'all' && words === ''
                  ? 'Nothing is marked yet. Select words in an article, and say what they are for.'
                  : 'Nothing of that is marked.'}
              </Text>
            )}
          </View>
        }
        renderItem={({ item: each }) => <MarksOfItem marked={each} onOpen={open} />}
      />
      {opened && <HighlightSheet key={opened.id} highlight={opened} onClose={() => open(null)} />}
    </View>
  );
}

function inWords(count: number, items: number): string {
  if (count === 0) return '';
  return `${count} in ${items === 1 ? '1 item' : `${items} items`}`;
}

function MarksOfItem({
  marked: { item, highlights },
  onOpen,
}: {
  marked: MarkedItem;
  onOpen(id: string): void;
}) {
  return (
    <View role="group" aria-label={titleOf(item)} className="border-b border-line pb-[12px] pt-[14px]">
      <Link href={`/library/${item.id}`} asChild>
        <Pressable className="min-h-[44px] justify-center">
          <Text className="font-read text-row font-semibold text-ink">{titleOf(item)}</Text>
          <Text className="font-ui text-small text-soft">{sourceOf(item)}</Text>
        </Pressable>
      </Link>
      {highlights.map((highlight) => (
        <OneMark key={highlight.id} highlight={highlight} onOpen={() => onOpen(highlight.id)} />
      ))}
    </View>
  );
}

function OneMark({ highlight, onOpen }: { highlight: Highlight; onOpen(): void }) {
  const { kind, passage, note } = highlight.choices;
  const { exact } = passage.value;
  return (
    <View className="flex-row items-start gap-[8px] py-[8px]">
      <View className="min-w-0 flex-1 gap-[3px]">
        <p className="marked-words">
          <span className={`mark-sample mark-${kind.value}`}>{exact}</span>
        </p>
        {note.value !== '' && <Text className="font-ui text-base text-ink">{note.value}</Text>}
        <View className="flex-row items-center gap-[16px]">
          <Text className="font-ui text-small text-soft">{HIGHLIGHT_KIND_WORDS[kind.value]}</Text>
          <Link href={`/library/${highlight.itemId}?at=${atMark(highlight.id)}`} asChild>
            <Pressable className="min-h-[44px] justify-center">
              <Text className="font-ui text-small text-accent underline">To the passage</Text>
            </Pressable>
          </Link>
          <Pressable
            role="button"
            aria-label={`Change “${exact.slice(0, 60)}”`}
            onPress={onOpen}
            className="min-h-[44px] min-w-[44px] justify-center"
          >
            <Text className="font-ui text-small text-accent underline">Change</Text>
          </Pressable>
        </View>
      </View>
    </View>
  );
}

/** Highlights made elsewhere: from web annotations, a table, or quotations as plain text. */
function BringIn() {
  const show = useNotices((state) => state.show);
  const bring = async (file: File) => {
    const { readHighlightFile } = await import('@dorvel/core/formats');
    const read = readHighlightFile(await file.text());
    const brought = await bringIn(read.highlights);
    show({
      text: broughtInWords(brought, read.faults),
      ...(read.highlights.length > 0
        ? { action: { label: 'Undo', press: () => void brought.takeBack() } }
        : {}),
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
        Web annotations, a table with a column of quotations, or quotations with a blank line between them.
      </Text>
    </View>
  );
}

/** What is on the page, to be used elsewhere: in open formats, each passage with its source. */
function TakeAlong({ marked }: { marked: readonly MarkedItem[] }) {
  const show = useNotices((state) => state.show);
  const copy = async () => {
    const { highlightsAsMarkdown, markdownAsHtml } = await import('@dorvel/core/formats');
    const markdown = highlightsAsMarkdown(marked);
    // Rich text for what takes it, Markdown for all else.
    const blob = (type: string, content: string) => new Blob([content], { type });
    await navigator.clipboard.write([
      new ClipboardItem({
        'text/html': blob('text/html', markdownAsHtml(markdown)),
        'text/plain': blob('text/plain', markdown),
      }),
    ]);
    show({ text: 'Copied, with the sources.' });
  };
  const table = async () => {
    const { highlightsAsCsv } = await import('@dorvel/core/formats');
    handOutFile('highlights.csv', 'text/csv', highlightsAsCsv(marked));
  };
  const markdown = async () => {
    const { highlightsAsMarkdown } = await import('@dorvel/core/formats');
    handOutFile('highlights.md', 'text/markdown', highlightsAsMarkdown(marked));
  };
  const annotations = async () => {
    const { highlightsAsAnnotations } = await import('@dorvel/core/formats');
    const written = JSON.stringify(highlightsAsAnnotations(marked), null, 2);
    handOutFile('highlights.jsonld', 'application/ld+json', written);
  };
  return (
    <View role="group" aria-label="Take along" className="flex-row flex-wrap gap-[10px]">
      <Button label="Copy all" onPress={() => void copy()} />
      <Button label="As Markdown" onPress={() => void markdown()} />
      <Button label="As web annotations" onPress={() => void annotations()} />
      <Button label="As CSV" onPress={() => void table()} />
    </View>
  );
}
