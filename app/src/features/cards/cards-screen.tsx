import { gapsIn, intervalWords, promptsOf, withoutGaps } from '@dorvel/core/cards';
import type { Card } from '@dorvel/core/model';
import { titleOf } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, Pressable, Text, View } from 'react-native';
import { handOutText } from '@/device/cache/download-file';
import { changeCard, makeCards } from '@/device/store/changes';
import { useItems } from '@/device/store/items';
import { useCards } from '@/device/store/library';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { FileButton } from '@/ui/file-button';
import { useNotices } from '@/ui/notices';
import { ScreenHeader } from '@/ui/screen-header';
import { CardSheet } from './card-sheet';
import { Limits } from './limits';
import { ToSource } from './to-source';

/** All cards: found by their words, changed, paused, taken along and brought in. */
export function CardsScreen() {
  const cards = useCards();
  const router = useRouter();
  const [words, setWords] = useState('');
  const [openId, setOpenId] = useState<string | null>(null);
  const shown = useMemo(() => {
    const sought = words.trim().toLowerCase();
    return (cards ?? [])
      .filter(({ choices }) => `${choices.front.value}\n${choices.back.value}`.toLowerCase().includes(sought))
      .sort((a, b) => b.madeAt - a.madeAt);
  }, [cards, words]);
  const opened = cards?.find(({ id }) => id === openId);
  return (
    <View className="flex-1 bg-ground">
      <FlatList
        data={shown}
        keyExtractor={({ id }) => id}
        initialNumToRender={12}
        contentContainerClassName="mx-auto w-full max-w-[640px] px-[20px] pb-[40px]"
        ListHeaderComponent={
          <View className="gap-[12px] pb-[6px]">
            <ScreenHeader title="Cards" aside={cards ? inWords(cards.length) : ''} />
            <View className="flex-row flex-wrap gap-[8px]">
              <Button label="From memory: what is due" kind="main" onPress={() => router.push('/from-memory')} />
              <TakeAlong cards={shown} />
            </View>
            {(cards?.length ?? 0) > 0 ? (
              <Field label="With these words" value={words} onChangeText={setWords} inputMode="search" />
            ) : (
              <Text className="font-ui text-base text-soft">
                A card asks for one small thing, and comes back when you are about to forget it. Select a passage in an
                article and press “Card”, or bring in a table with questions and answers.
              </Text>
            )}
          </View>
        }
        ListFooterComponent={
          <View className="gap-[12px] pt-[22px]">
            <Limits />
          </View>
        }
        renderItem={({ item: card }) => <OneCard card={card} onOpen={() => setOpenId(card.id)} />}
      />
      {opened && (
        <CardSheet
          key={opened.id}
          card={opened}
          source={opened.source}
          passage={opened.source?.passage?.exact ?? ''}
          language={null}
          onClose={() => setOpenId(null)}
        />
      )}
    </View>
  );
}

const inWords = (count: number) => (count === 1 ? '1 card' : `${count} cards`);

function OneCard({ card, onOpen }: { card: Card; onOpen(): void }) {
  const show = useNotices((state) => state.show);
  const { front, back, paused } = card.choices;
  const remove = () => {
    void changeCard(card, { removed: true });
    show({
      text: 'The card is removed.',
      action: { label: 'Undo', press: () => void changeCard(card, { removed: false }) },
    });
  };
  return (
    <View role="group" aria-label={withoutGaps(front.value)} className="gap-[4px] border-b border-line py-[12px]">
      <Text className="font-read text-base text-ink">{front.value.replaceAll('[[', '[').replaceAll(']]', ']')}</Text>
      {back.value !== '' && <Text className="font-read text-base text-soft">{back.value}</Text>}
      <Text className="font-ui text-small text-soft">{paused.value ? 'paused' : whenAsked(card)}</Text>
      <View className="flex-row flex-wrap items-center gap-[16px]">
        <TextButton label="Change" onPress={onOpen} />
        <TextButton
          label={paused.value ? 'Ask it again' : 'Pause'}
          onPress={() => void changeCard(card, { paused: !paused.value })}
        />
        <TextButton label="Remove" onPress={remove} />
        {card.source && <ToSource source={card.source} />}
      </View>
    </View>
  );
}

function whenAsked(card: Card): string {
  const prompts = promptsOf(card);
  const next = Math.min(...prompts.map(({ dueAt }) => dueAt));
  const now = Date.now();
  const when = next <= now ? 'due' : `comes in ${intervalWords(next - now)}`;
  const gaps = gapsIn(card.choices.front.value).length;
  const leech = prompts.some(({ isLeech }) => isLeech) ? ' · keeps being forgotten: make it shorter' : '';
  return `${gaps > 1 ? `${gaps} gaps · ` : ''}${when}${leech}`;
}

function TextButton({ label, onPress }: { label: string; onPress(): void }) {
  return (
    <Pressable role="button" onPress={onPress} className="min-h-[44px] min-w-[44px] justify-center">
      <Text className="font-ui text-small text-accent underline">{label}</Text>
    </Pressable>
  );
}

/** Out and in, as tables that any card program reads. */
function TakeAlong({ cards }: { cards: readonly Card[] }) {
  const items = useItems();
  const show = useNotices((state) => state.show);
  const out = async (delimiter: ',' | '\t') => {
    const { cardsAsTable } = await import('@/device/formats');
    const titles = new Map(items?.map((item) => [item.id, `${titleOf(item)} ${item.address}`]));
    const written = cardsAsTable(cards, delimiter, ({ source }) => titles.get(source?.itemId ?? '') ?? '');
    const isTabs = delimiter === '\t';
    handOutText(isTabs ? 'cards.tsv' : 'cards.csv', isTabs ? 'text/tab-separated-values' : 'text/csv', written);
  };
  const bringIn = async (file: File) => {
    const { readCardTable } = await import('@/device/formats');
    const read = readCardTable(await file.text());
    const ids = await makeCards(read.cards.map((card) => ({ ...card, source: null })));
    const [fault] = read.faults;
    const left = fault
      ? ` ${read.faults.length === 1 ? 'A row was' : `${read.faults.length} rows were`} left out; row ${fault.row}: ${fault.says}`
      : '';
    show({
      text: `${inWords(ids.length)} brought in.${left}`,
      ...(ids.length > 0 ? { action: { label: 'Undo', press: () => void takeBack(ids) } } : {}),
    });
  };
  return (
    <>
      {cards.length > 0 && (
        <>
          <Button label="As CSV" onPress={() => void out(',')} />
          <Button label="With tabs" onPress={() => void out('\t')} />
        </>
      )}
      <FileButton label="Bring in a table" accept=".csv,.tsv,.txt" onFile={(file) => void bringIn(file)} />
    </>
  );
}

async function takeBack(ids: readonly string[]): Promise<void> {
  const { useAccount } = await import('@/device/store/account');
  const cards = await useAccount.getState().store?.cards.bulkGet([...ids]);
  for (const card of cards ?? []) if (card) await changeCard(card, { removed: true });
}
