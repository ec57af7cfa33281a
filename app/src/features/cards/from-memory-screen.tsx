import { gapParts, intervalsOf, intervalWords, type Prompt } from '@dorvel/core/cards';
import type { RecallGrade } from '@dorvel/core/model';
import { useRouter } from 'expo-router';
import { useCallback, useMemo, useState } from 'react';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { v7 as uuidv7 } from 'uuid';
import { changeCard, recall } from '@/device/store/changes';
import { Button } from '@/ui/button';
import { useKeys } from '@/ui/keys';
import { useNotices } from '@/ui/notices';
import { ScreenHeader } from '@/ui/screen-header';
import { CardSheet } from './card-sheet';
import { ToSource } from './to-source';
import { useFromMemory } from './use-from-memory';

const GRADES: readonly { grade: RecallGrade; label: string }[] = [
  { grade: 1, label: 'Forgot' },
  { grade: 2, label: 'Barely' },
  { grade: 3, label: 'Knew it' },
  { grade: 4, label: 'At once' },
];

/** Cards from memory: one question after the other, each answered by how well it was known. */
export function FromMemoryScreen() {
  const plan = useFromMemory();
  const [done, setDone] = useState(0);
  const prompt = plan?.due[0];
  const router = useRouter();
  const left = plan?.due.length ?? 0;
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[620px] flex-grow px-[20px] pb-[28px]"
    >
      <ScreenHeader title="From memory" aside={left > 0 ? `${left} due` : ''} />
      {prompt ? (
        <Question
          // A new question begins covered.
          key={`${prompt.card.id} ${prompt.gap} ${Object.keys(prompt.card.recalls).length}`}
          prompt={prompt}
          onAnswered={(by) => setDone((before) => before + by)}
        />
      ) : (
        plan && (
          <View className="items-start gap-[14px] py-[18px]">
            <Text className="font-ui text-base text-ink">{nothingDue(plan, done)}</Text>
            {plan.heldBack > 0 && (
              <Text className="font-ui text-base text-soft">
                {plan.heldBack} more would be due. They wait for tomorrow, as you set it under Cards.
              </Text>
            )}
            <Button label="All cards" onPress={() => router.push('/cards')} />
          </View>
        )
      )}
    </ScrollView>
  );
}

function nothingDue(plan: { cardCount: number; nextAt: number | null }, done: number): string {
  if (plan.cardCount === 0) return 'There are no cards yet. Select a passage in an article, and make one of it.';
  const answered = done > 0 ? `${done} answered. ` : '';
  const next = plan.nextAt === null ? '' : ` The next one comes in ${intervalWords(plan.nextAt - Date.now())}.`;
  return `${answered}Nothing is due.${next}`;
}

function Question({ prompt, onAnswered }: { prompt: Prompt; onAnswered(by: 1 | -1): void }) {
  const [shown, setShown] = useState(false);
  const [editing, setEditing] = useState(false);
  const [askedAt] = useState(() => Date.now());
  const show = useNotices((state) => state.show);
  const { card } = prompt;
  const waits = useMemo(() => intervalsOf(prompt, askedAt), [prompt, askedAt]);
  const answer = useCallback(
    (grade: RecallGrade) => {
      const given = { id: uuidv7(), gap: prompt.gap, at: Date.now(), grade, undone: false };
      void recall(prompt.card.id, given);
      onAnswered(1);
      show({
        text: `It comes again in ${intervalWords(waits[grade])}.`,
        action: {
          label: 'Undo',
          press: () => {
            void recall(prompt.card.id, { ...given, undone: true });
            onAnswered(-1);
          },
        },
      });
    },
    [prompt, waits, onAnswered, show],
  );
  useKeys(
    useMemo(
      () =>
        shown
          ? Object.fromEntries(GRADES.map(({ grade }) => [String(grade), () => answer(grade)]))
          : { ' ': () => setShown(true), Enter: () => setShown(true) },
      [shown, answer],
    ),
    // Elsewhere the figures lead to the places.
    true,
  );
  return (
    <View className="flex-1 gap-[16px]">
      <View
        role="group"
        aria-label="Question"
        aria-live="polite"
        className="min-h-[220px] justify-center gap-[14px] rounded-[18px] border border-line bg-raised px-[22px] py-[26px]"
      >
        <CardFace prompt={prompt} shown={shown} />
      </View>
      {prompt.isLeech && (
        <View className="gap-[6px] rounded-[14px] border-[1.5px] border-soft px-[16px] py-[12px]">
          <Text className="font-ui text-base text-ink">
            Forgotten {prompt.lapses} times. As it stands it will not stay; make it shorter, or ask it another way.
          </Text>
        </View>
      )}
      {shown ? (
        <View role="group" aria-label="How well did you know it?" className="flex-row flex-wrap gap-[8px]">
          {GRADES.map(({ grade, label }) => (
            <Pressable
              key={grade}
              role="button"
              aria-label={`${label}: again in ${intervalWords(waits[grade])}`}
              onPress={() => answer(grade)}
              className="min-h-[64px] min-w-[120px] flex-1 items-center justify-center rounded-[16px] border-[1.5px] border-soft bg-raised"
            >
              <Text className="font-ui text-base font-semibold text-ink">{label}</Text>
              <Text className="font-ui text-small text-soft">{intervalWords(waits[grade])}</Text>
            </Pressable>
          ))}
        </View>
      ) : (
        <Button label="Show the answer" kind="main" onPress={() => setShown(true)} />
      )}
      <View className="flex-row flex-wrap items-center gap-[8px]">
        <Button label="Change" name="Change this card" onPress={() => setEditing(true)} />
        <Button
          label="Pause"
          name="Pause this card"
          onPress={() => {
            void changeCard(card, { paused: true });
            show({
              text: 'The card is paused.',
              action: { label: 'Undo', press: () => void changeCard(card, { paused: false }) },
            });
          }}
        />
        {card.source && <ToSource source={card.source} />}
      </View>
      {editing && (
        <CardSheet
          card={card}
          source={card.source}
          passage={card.source?.passage?.exact ?? ''}
          language={null}
          onClose={() => setEditing(false)}
        />
      )}
    </View>
  );
}

/** The question as it is asked, with its answer once that is shown. */
function CardFace({ prompt: { card, gap }, shown }: { prompt: Prompt; shown: boolean }) {
  const { front, back } = card.choices;
  if (gap === 0)
    return (
      <>
        <Text className="font-read text-row text-ink">{front.value}</Text>
        {shown && (
          <Text className="border-t border-line pt-[14px] font-read text-row font-semibold text-ink">{back.value}</Text>
        )}
      </>
    );
  return (
    <Text className="font-read text-row text-ink">
      {gapParts(front.value).map((part, at) => {
        if (part.gap !== gap) return part.text;
        return shown ? (
          <Text key={at} className="font-semibold text-ink underline decoration-ochre">
            {part.text}
          </Text>
        ) : (
          <Text key={at} aria-label="gap" className="text-soft">
            […]
          </Text>
        );
      })}
    </Text>
  );
}
