import { type Item, type PictureFacts, placeOfWord, type RecognisedWord } from '@dorvel/core/model';
import { isUnsure, wordsPutRight } from '@dorvel/core/picture';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { putRight } from '@/device/store/changes';
import type { KeptCopy } from '@/device/store/store';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { namedList } from '@/ui/named-list';
import { Sheet } from '@/ui/sheet';

const WHICH = [
  { value: 'unsure', label: 'Those read unsurely' },
  { value: 'all', label: 'All words' },
] as const;
type Which = (typeof WHICH)[number]['value'];

/** So many words are shown at once; the next follow on a press. */
const AT_ONCE = 40;

interface Shown {
  picture: PictureFacts;
  place: number;
  word: RecognisedWord;
  /** As it stands now; nothing when the reader says that it is no word. */
  now: string;
}

/** The words that were read in a picture, each beside the piece of the picture that it was read in, to be put right. */
export function WordsSheet({ item, copy, onClose }: { item: Item; copy: KeptCopy; onClose(): void }) {
  const all = wordsOf(item, copy);
  const [atFirst] = useState(() => new Set(all.filter(({ word }) => isUnsure(word)).map(keyOf)));
  const [which, setWhich] = useState<Which>(atFirst.size > 0 ? 'unsure' : 'all');
  const [most, setMost] = useState(AT_ONCE);
  // A word that was just put right stays where it is.
  const wanted = which === 'all' ? all : all.filter((each) => atFirst.has(keyOf(each)));
  return (
    <Sheet title="Words read in the picture" whole onClose={onClose}>
      <View className="gap-[16px]">
        {atFirst.size > 0 && <Choice<Which> name="Which words" options={WHICH} value={which} onChange={setWhich} />}
        <Text className="font-ui text-small text-soft">
          A word that you put right counts for finding and for the voice. Empty the field where there is no word.
        </Text>
        <View {...namedList('Words', wanted.length)} className="gap-[14px]">
          {wanted.slice(0, most).map((each) => (
            <OneWord key={keyOf(each)} item={item} shown={each} />
          ))}
        </View>
        {wanted.length > most && (
          <Button label={`${wanted.length - most} more`} onPress={() => setMost(most + AT_ONCE)} />
        )}
        <Button label="Done" kind="main" onPress={onClose} />
      </View>
    </Sheet>
  );
}

const keyOf = ({ picture, place }: Shown) => `${picture.hash} ${place}`;

function wordsOf(item: Item, { recognised = [] }: KeptCopy): Shown[] {
  const pictures = new Map(item.capture.page?.pictures.map((each) => [each.hash, each]));
  return recognised.flatMap((each) => {
    const picture = pictures.get(each.hash);
    if (!picture) return [];
    const now = wordsPutRight(each, item.putRight);
    return each.words.map((word, place) => ({ picture, place, word, now: now[place]?.text ?? '' }));
  });
}

function OneWord({ item, shown: { picture, place, word, now } }: { item: Item; shown: Shown }) {
  const [written, setWritten] = useState(now);
  const settle = () => {
    const is = written.trim();
    if (is === now) return;
    void putRight(item.id, placeOfWord(picture.hash, place), { was: word.text, is });
  };
  return (
    <View role="listitem" className="flex-row flex-wrap items-end gap-[12px]">
      <Piece picture={picture} word={word} />
      <View className="min-w-[180px] flex-1">
        <Field
          label={`Read as “${word.text}”`}
          value={written}
          onChangeText={setWritten}
          onBlur={settle}
          onSubmitEditing={settle}
        />
      </View>
    </View>
  );
}

const PIECE_HEIGHT = 50;
const MOST_WIDTH = 300;

/** The piece of a picture in which a word stands, with a little of what is around it. */
function Piece({ picture: { hash, width, height }, word: { box } }: { picture: PictureFacts; word: RecognisedWord }) {
  const [left, top, across, down] = [
    (box[0] / 1000) * width,
    (box[1] / 1000) * height,
    (box[2] / 1000) * width,
    (box[3] / 1000) * height,
  ];
  const margin = 0.35 * down;
  const scale = Math.min(PIECE_HEIGHT / (down + 2 * margin), MOST_WIDTH / (across + 2 * margin));
  return (
    <div
      className="piece-of-picture"
      role="img"
      aria-label="The piece of the picture"
      style={{
        width: scale * (across + 2 * margin),
        height: scale * (down + 2 * margin),
        backgroundImage: `url(/api/pictures/${hash}.webp)`,
        backgroundSize: `${scale * width}px ${scale * height}px`,
        backgroundPosition: `${-scale * (left - margin)}px ${-scale * (top - margin)}px`,
      }}
    />
  );
}
