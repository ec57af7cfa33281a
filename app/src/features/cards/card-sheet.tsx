import { cardFaults, gapsIn, isHopeless, makeGap, withoutGaps } from '@dorvel/core/cards';
import type { Card } from '@dorvel/core/model';
import { CARD_FAULT_WORDS } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { changeCard, makeCards } from '@/device/store/changes';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';

interface CardSheetProps {
  /** A card that is changed; else a new one is made. */
  card?: Card;
  /** Where a new one comes from, and the words of the passage. */
  source: Card['source'];
  passage: string;
  /** BCP 47 tag of the passage, or null. */
  language: string | null;
  onClose(): void;
}

type Form = 'gaps' | 'question';
const FORMS: readonly { value: Form; label: string }[] = [
  { value: 'gaps', label: 'A sentence with gaps' },
  { value: 'question', label: 'A question' },
];

/** Makes a card of a passage, or changes one: the reader chooses the one thing to know, and shortens. */
export function CardSheet({ card, source, passage, language, onClose }: CardSheetProps) {
  const isQuestion = card !== undefined && gapsIn(card.choices.front.value).length === 0;
  const [form, setForm] = useState<Form>(isQuestion ? 'question' : 'gaps');
  const [sentence, setSentence] = useState(card && !isQuestion ? card.choices.front.value : passage);
  const [question, setQuestion] = useState(isQuestion ? card.choices.front.value : '');
  const [answer, setAnswer] = useState(card?.choices.back.value ?? '');
  const [selection, setSelection] = useState({ start: 0, end: 0 });
  const show = useNotices((state) => state.show);
  const [front, back] = form === 'gaps' ? [sentence.trim(), ''] : [question.trim(), answer.trim()];
  const faults = cardFaults(front, back, language);
  const unasked = form === 'gaps' && gapsIn(front).length === 0;
  const ready = !faults.some(isHopeless) && !unasked;
  const make = async () => {
    if (card) await changeCard(card, { front, back });
    else {
      await makeCards([{ source, front, back }]);
      show({ text: 'The card is made. It is asked “From memory”, the next time.' });
    }
  };
  return (
    <Sheet title={card ? 'Card' : 'Make a card'} onClose={onClose}>
      <View className="gap-[14px]">
        <Choice name="What it is" options={FORMS} value={form} onChange={(value) => setForm(value)} />
        {form === 'gaps' ? (
          <>
            <Field
              label="The sentence"
              value={sentence}
              onChangeText={setSentence}
              onSelectionChange={({ nativeEvent }) => setSelection(nativeEvent.selection)}
              multiline
            />
            <View className="flex-row flex-wrap gap-[8px]">
              <Button
                label="Make a gap of what is selected"
                disabled={selection.start === selection.end}
                onPress={() => setSentence(makeGap(sentence, selection.start, selection.end))}
              />
              {gapsIn(sentence).length > 0 && (
                <Button label="No gaps" onPress={() => setSentence(withoutGaps(sentence))} />
              )}
            </View>
          </>
        ) : (
          <>
            {passage !== '' && <Text className="font-read text-base text-soft">{passage}</Text>}
            <Field label="Question" value={question} onChangeText={setQuestion} multiline />
            <Field label="Answer" value={answer} onChangeText={setAnswer} multiline />
          </>
        )}
        <View role="status" aria-live="polite" className="min-h-[22px] gap-[2px]">
          {unasked && front !== '' ? (
            <Text className="font-ui text-small text-soft">Select the words that are to be recalled.</Text>
          ) : (
            faults.map((fault) => (
              <Text key={fault} className="font-ui text-small text-soft">
                {CARD_FAULT_WORDS[fault]}
              </Text>
            ))
          )}
        </View>
        <View className="flex-row flex-wrap gap-[8px]">
          <Button
            label={card ? 'Keep the change' : 'Make the card'}
            kind="main"
            disabled={!ready}
            onPress={() => void make().then(onClose)}
          />
          {!card && (
            <Button
              label="Make it, and another"
              disabled={!ready}
              onPress={() =>
                void make().then(() => {
                  setSentence(passage);
                  setQuestion('');
                  setAnswer('');
                })
              }
            />
          )}
        </View>
      </View>
    </Sheet>
  );
}
