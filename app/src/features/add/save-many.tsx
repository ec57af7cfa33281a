import { canonicalAddress } from '@dorvel/core/address';
import type { HowMuch } from '@dorvel/core/model';
import { useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { Text, View } from 'react-native';
import { chooseAll, saveAll } from '@/device/store/changes';
import { useItems } from '@/device/store/items';
import { keepWhere } from '@/features/settings/where-saved';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { namedList } from '@/ui/named-list';
import { useNotices } from '@/ui/notices';
import type { SaveList, SaveRequest } from './files';

interface SaveManyProps {
  reading: SaveList;
  /** It is being read in another way: what is shown is not what would be saved. */
  isChanging?: boolean;
  howMuch: HowMuch;
  onDone(): void;
}

/** Addresses are shown as they are, at most this many; of the rest the number. */
const SHOWN = 6;

const TAGGING = [
  { value: 'yes', label: 'Add these tags' },
  { value: 'no', label: 'No tags' },
] as const;

/** A text with several addresses in it: what will be saved, what is there already, what cannot be, and then all at once. */
export function SaveMany({
  reading: { requests: wishes, faults },
  isChanging = false,
  howMuch,
  onDone,
}: SaveManyProps) {
  const items = useItems();
  const router = useRouter();
  const show = useNotices((state) => state.show);
  const [done, setDone] = useState<number | null>(null);
  const isWanted = useRef(true);
  const known = useMemo(() => {
    const keys = new Set(items?.map((item) => item.capture.addressKey));
    return wishes.filter(({ address }) => keys.has(canonicalAddress(address))).length;
  }, [items, wishes]);
  const tags = useMemo(() => new Set(wishes.flatMap((wish) => wish.tags ?? [])), [wishes]);
  const [withTags, setWithTags] = useState<'yes' | 'no'>('yes');
  const save = async () => {
    setDone(0);
    const wanted = withTags === 'yes' ? wishes : wishes.map((wish) => ({ ...wish, tags: [] }));
    const made = await saveAll(wanted, howMuch, () => isWanted.current, setDone);
    // What was saved or taken elsewhere was not saved here.
    if (wanted.every(({ savedAt, place }) => savedAt === undefined && place === undefined)) void keepWhere(made);
    onDone();
    show({
      text: `${made.length} saved to Inbox.`,
      action: {
        label: 'Undo',
        press: () => void chooseAll(made.map((itemId) => ({ itemId, set: { stage: 'let-go' } }))),
      },
    });
    router.navigate('/inbox');
  };
  if (done !== null)
    return (
      <View role="status" className="gap-[12px]">
        <Text className="font-ui text-base text-ink">
          Saving {done} of {wishes.length}…
        </Text>
        <Button label="Stop here" onPress={() => (isWanted.current = false)} />
      </View>
    );
  return (
    <View className="gap-[12px]">
      <Text role="status" className="font-ui text-base text-ink">
        {countInWords(wishes, known, howMuch === 'picture' ? 'item' : 'file')}
      </Text>
      <View {...namedList('To be saved', wishes.length)}>
        {wishes.slice(0, SHOWN).map(({ address, shown, tags: own = [] }) => (
          <Text key={address} role="listitem" numberOfLines={1} className="font-ui text-small text-soft">
            {[withTags === 'yes' ? own.join(', ') : '', shown].filter(Boolean).join(' · ')}
          </Text>
        ))}
      </View>
      {wishes.length > SHOWN && <Text className="font-ui text-small text-soft">and {wishes.length - SHOWN} more</Text>}
      {faults.length > 0 && (
        <View role="group" aria-label="Cannot be saved" className="gap-[4px]">
          <Text className="font-ui text-small font-semibold text-brick">{faults.length} cannot be saved:</Text>
          {faults.slice(0, SHOWN).map(({ written, says }) => (
            <Text key={written} className="font-ui text-small text-brick">
              {written}: {says}
            </Text>
          ))}
        </View>
      )}
      {wishes.some(({ savedAt }) => savedAt !== undefined) && (
        <Text className="font-ui text-small text-soft">They keep the days on which you saved them there.</Text>
      )}
      {tags.size > 0 && (
        <View className="gap-[8px]">
          <Text className="font-ui text-small text-soft">
            {`Their folders and tags there make ${tags.size === 1 ? '1 tag' : `${tags.size} tags`} here.`}
          </Text>
          <Choice<'yes' | 'no'> name="Folders and tags" options={TAGGING} value={withTags} onChange={setWithTags} />
        </View>
      )}
      <Button
        label={`Save ${wishes.length}`}
        kind="main"
        disabled={isChanging || wishes.length === 0}
        onPress={() => void save()}
      />
    </View>
  );
}

/** @param file what one of those is called that bring their own content */
function countInWords(wishes: readonly SaveRequest[], known: number, file: 'file' | 'item'): string {
  const files = wishes.filter(({ given }) => given).length;
  const pages = wishes.length - files;
  const counted = [
    pages > 0 || files === 0 ? (pages === 1 ? '1 address' : `${pages} addresses`) : '',
    files > 0 ? (files === 1 ? `1 ${file}` : `${files} ${file}s`) : '',
  ]
    .filter(Boolean)
    .join(' and ');
  return known === 0 ? `${counted}.` : `${counted}, ${known} of them in your library already.`;
}
