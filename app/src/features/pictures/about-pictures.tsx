import type { Item, PictureFacts, PictureKind, PictureSeen } from '@dorvel/core/model';
import { PictureKind as Kinds } from '@dorvel/core/model';
import { kindInWords, kindOfItem, kindReasonWords, PICTURE_KIND_WORDS } from '@dorvel/core/picture';
import { titleOf } from '@dorvel/core/wording';
import { Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { choose } from '@/device/store/changes';
import type { KeptCopy } from '@/device/store/store';
import { tagFilter, useFindQuery } from '@/features/find/find-store';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { namedList } from '@/ui/named-list';
import { SectionHeading } from '@/ui/section-heading';
import { TypeInSheet } from './type-in-sheet';
import { useAlike } from './use-alike';
import { WordsSheet } from './words-sheet';

/** What was seen in an item's pictures, and where it can be put right; nothing for what is a text. */
export function AboutPictures({ item, copy }: { item: Item; copy: KeptCopy }) {
  const pictures = item.capture.page?.pictures ?? [];
  if (pictures.length === 0) return null;
  const seen = pictures.flatMap((picture) => picture.seen ?? []);
  return (
    <View
      role="region"
      aria-label="About the picture"
      className="mx-auto mt-[30px] w-full max-w-[560px] gap-[20px] border-t border-line pt-[22px]"
    >
      {seen.length === 0 ? (
        <Text role="status" className="font-ui text-base text-soft">
          It has not been looked at yet: its words and colours follow when the server comes to it.
        </Text>
      ) : (
        <>
          <KindOfIt item={item} pictures={pictures} seen={seen} />
          <Colours seen={seen} />
        </>
      )}
      <Words item={item} copy={copy} seen={seen} />
      <Alike item={item} />
    </View>
  );
}

function KindOfIt({
  item,
  pictures,
  seen,
}: {
  item: Item;
  pictures: readonly PictureFacts[];
  seen: readonly PictureSeen[];
}) {
  const [isAsked, setAsked] = useState(false);
  const kind = kindOfItem(item.choices, pictures);
  const [first] = seen;
  if (!kind || !first) return null;
  const said = item.choices.kindSaid.value;
  return (
    <View className="items-start gap-[8px]">
      <SectionHeading>Kind</SectionHeading>
      <Text className="font-read text-row text-ink">{kindInWords(kind, first)}</Text>
      <Text className="font-ui text-small text-soft">
        {said === null ? `Told by how it looks: ${first.why.map(kindReasonWords).join('; ')}.` : 'As you said.'}
      </Text>
      {isAsked ? (
        <Choice<PictureKind>
          name="Kind of picture"
          options={Kinds.options.map((value) => ({ value, label: PICTURE_KIND_WORDS[value] }))}
          value={kind}
          onChange={(value) => {
            setAsked(false);
            void choose(item.id, { kindSaid: value });
          }}
        />
      ) : (
        <Button label="It is something else" onPress={() => setAsked(true)} />
      )}
    </View>
  );
}

function Colours({ seen }: { seen: readonly PictureSeen[] }) {
  const router = useRouter();
  const colours =
    seen.length === 1 ? (seen[0]?.colours ?? []) : seen.flatMap(({ colours: own }) => own.slice(0, 2)).slice(0, 8);
  return (
    <View className="gap-[8px]">
      <SectionHeading>Colours</SectionHeading>
      <View {...namedList('Colours', colours.length)} className="flex-row flex-wrap gap-[8px]">
        {colours.map(({ hex, share, name }, n) => (
          <View key={`${hex} ${n}`} role="listitem">
            <Pressable
              role="button"
              aria-label={`${name}, ${Math.round(100 * share)} %: find pictures with it`}
              className="min-h-[44px] flex-row items-center gap-[8px] rounded-[12px] bg-sunken pr-[12px]"
              onPress={() => {
                useFindQuery.getState().write(`colour:${tagFilter(name).slice('tag:'.length)} `);
                useFindQuery.getState().settle();
                router.navigate('/library');
              }}
            >
              <View className="h-[44px] w-[44px] rounded-[12px] border border-line" style={{ backgroundColor: hex }} />
              <Text className="font-ui text-small text-ink">{`${name} · ${Math.round(100 * share)} %`}</Text>
            </Pressable>
          </View>
        ))}
      </View>
    </View>
  );
}

function Words({ item, copy, seen }: { item: Item; copy: KeptCopy; seen: readonly PictureSeen[] }) {
  const [open, setOpen] = useState<'words' | 'typing' | null>(null);
  const words = seen.reduce((sum, { wordCount }) => sum + wordCount, 0);
  const fixed = Object.values(item.putRight).filter(({ value: { was, is } }) => was !== is).length;
  const unsure = Math.max(0, seen.reduce((sum, { unsureCount }) => sum + unsureCount, 0) - fixed);
  return (
    <View className="items-start gap-[8px]">
      <SectionHeading>Words in it</SectionHeading>
      <Text className="font-ui text-base text-soft">
        {seen.length === 0
          ? 'Type in what it says yourself, if you need it found before.'
          : words === 0
            ? 'No printed words were read in it. Handwriting is hardly ever read: type in what it says, and it is found by that.'
            : `${words === 1 ? '1 word was' : `${words} words were`} read in it${unsure === 0 ? '.' : `, ${unsure} of them unsurely.`}`}
      </Text>
      <View className="flex-row flex-wrap gap-[10px]">
        {words > 0 && <Button label="Put words right" onPress={() => setOpen('words')} />}
        <Button
          label={item.choices.typed.value ? 'Change what you typed in' : 'Type in what it says'}
          onPress={() => setOpen('typing')}
        />
      </View>
      {open === 'words' && <WordsSheet item={item} copy={copy} onClose={() => setOpen(null)} />}
      {open === 'typing' && <TypeInSheet item={item} onClose={() => setOpen(null)} />}
    </View>
  );
}

function Alike({ item }: { item: Item }) {
  const { same, near } = useAlike(item);
  if (same.length + near.length === 0) return null;
  return (
    <View className="gap-[8px]">
      {same.map((other) => (
        <Text key={other.id} className="font-ui text-base text-ink">
          Looks the same as{' '}
          <Link href={`/library/${other.id}`} className="text-accent underline">
            {titleOf(other)}
          </Link>
          .
        </Text>
      ))}
      {near.length > 0 && (
        <>
          <SectionHeading>Like this one</SectionHeading>
          <View {...namedList('Like this one', near.length)} className="flex-row flex-wrap gap-[10px]">
            {near.map((other) => (
              <View key={other.id} role="listitem">
                <Link href={`/library/${other.id}`} aria-label={titleOf(other)}>
                  <img
                    className="alike-picture"
                    src={`/api/pictures/${other.capture.page?.pictures[0]?.small ?? ''}.webp`}
                    alt=""
                    loading="lazy"
                  />
                </Link>
              </View>
            ))}
          </View>
        </>
      )}
    </View>
  );
}
