import type { Item, KnownWish } from '@dorvel/core/model';
import { inMinutes, titleOf } from '@dorvel/core/wording';
import { Text, View } from 'react-native';
import { choose } from '@/device/store/changes';
import { useItemsById } from '@/device/store/items';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { Switch } from '@/ui/setting';
import type { KnownInText } from './use-known-in-text';

/** Sets what is done about what of an item is known, with a way back. */
export function wish(item: Item, known: KnownWish, says: string): void {
  const before = item.choices.known.value;
  void choose(item.id, { known });
  useNotices.getState().show({
    text: says,
    action: { label: 'Undo', press: () => void choose(item.id, { known: before }) },
  });
}

/** At the head of a text: how much of it the reader has not met elsewhere, and whether to pass over the rest. */
export function NewToYou({ item, known }: { item: Item; known: KnownInText }) {
  const byId = useItemsById();
  if (known.sentences.length === 0) return null;
  const minutes = item.capture.page?.minutes ?? 0;
  const met = [...new Set(known.sentences.map(({ id }) => id))].flatMap((id) => byId.get(id) ?? []).map(titleOf);
  return (
    <View
      role="region"
      aria-label="New to you"
      className="mx-auto mb-[22px] w-full max-w-[560px] gap-[4px] rounded-[14px] border border-line bg-raised px-[14px] py-[12px]"
    >
      <Text className="font-ui text-base font-semibold text-ink">{newInWords(minutes, known.fraction)}</Text>
      <Text className="font-ui text-small text-soft">
        {known.sentences.length} of its sentences say what you have met in {titles(met)}.
      </Text>
      <Switch
        label="Pass over what I know"
        about="It is drawn softly; pages and the voice go on behind it."
        on={known.passedOver}
        onChange={(on) => void choose(item.id, { known: on ? 'passed-over' : 'told' })}
      />
      <View className="items-start">
        <Button
          label="No, it is new to me"
          onPress={() => wish(item, 'disputed', 'Taken back: nothing of this text is called known.')}
        />
      </View>
    </View>
  );
}

/** How much of a text is new, in words. @param fraction that is known, 0 to 1 */
function newInWords(minutes: number, fraction: number): string {
  const fresh = Math.round(minutes * (1 - fraction));
  const whole = Math.max(1, Math.round(minutes));
  if (fraction >= 0.95) return 'Nearly nothing of it is new to you';
  if (whole < 3 || fresh === whole || fresh === 0)
    return `About ${Math.round((1 - fraction) * 10)} tenths of it are new to you`;
  return `About ${fresh} of ${inMinutes(whole)} ${fresh === 1 ? 'is' : 'are'} new to you`;
}

const NAMED = 2;
function titles(met: readonly string[]): string {
  const named = met.slice(0, NAMED).map((title) => `“${title}”`);
  const rest = met.length - named.length;
  if (rest > 0) return `${named.join(', ')} and ${rest === 1 ? 'another' : `${rest} others`}`;
  return named.join(' and ');
}
