import { isWithin, type LookBack, type Period } from '@dorvel/core/look-back';
import type { Item } from '@dorvel/core/model';
import { bestInWords, periodInWords, titleOf } from '@dorvel/core/wording';
import { Pressable, Text, View } from 'react-native';
import { copyMarkdown } from '@/device/cache/copy-markdown';
import { handOutText } from '@/device/cache/download-file';
import { choose } from '@/device/store/changes';
import { dayOf, noonOf } from '@/device/store/day';
import { asEntries, usePutIn } from '@/features/collecting/put-in-store';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { useNotices } from '@/ui/notices';
import { ItemLine, Part } from './items-of';

/** The best of a period, with why; the reader's own word counts most, and all of it can be taken along. */
export function BestOfIt({ period, told, today }: { period: Period; told: LookBack; today: string }) {
  const { best, highlights, read, heard } = told;
  const named = new Set(best.map(({ item }) => item.id));
  const others = [...read, ...heard].filter(({ id }) => !named.has(id));
  if (best.length + others.length === 0) return null;
  const title = `The best of it: ${periodInWords(period, today)}`;
  const written = async () => {
    const { bestAsMarkdown } = await import('@/device/formats');
    return bestAsMarkdown(title, best, highlights);
  };
  return (
    <Part title="The best of it">
      {best.length === 0 && (
        <Text className="font-ui text-base text-soft">
          Nothing was marked or come back to. Press below what was good all the same.
        </Text>
      )}
      <View {...namedList('The best of it', best.length)}>
        {best.map(({ item, reasons }) => (
          <ItemLine key={item.id} item={item} says={bestInWords(reasons)}>
            <OneOfTheBest item={item} of={period} />
          </ItemLine>
        ))}
      </View>
      {best.length > 0 && (
        <View role="group" aria-label="Take along" className="flex-row flex-wrap gap-[10px] pt-[6px]">
          <Button
            label="Copy the best"
            onPress={() =>
              void written()
                .then(copyMarkdown)
                .then(() => useNotices.getState().show({ text: 'Copied, with the sources.' }))
            }
          />
          <Button
            label="Into a dossier…"
            onPress={() => usePutIn.getState().ask(asEntries(best.map(({ item }) => item.id)))}
          />
          <Button
            label="As Markdown"
            onPress={() => void written().then((markdown) => handOutText('look-back.md', 'text/markdown', markdown))}
          />
        </View>
      )}
      {others.length > 0 && (
        <View {...namedList('Also finished', others.length)}>
          {others.map((item) => (
            <ItemLine key={item.id} item={item}>
              <OneOfTheBest item={item} of={period} />
            </ItemLine>
          ))}
        </View>
      )}
    </Part>
  );
}

/** One press: it is one of the best of that period, however long after it is said, or is not. */
function OneOfTheBest({ item, of: period }: { item: Item; of: Period }) {
  const isBest = item.choices.best.value !== null;
  const since = (now: number) => (isWithin(period, dayOf(now)) ? now : noonOf(period.to));
  return (
    <Pressable
      role="button"
      aria-label={`One of the best: “${titleOf(item)}”`}
      aria-pressed={isBest}
      onPress={() => void choose(item.id, { best: isBest ? null : since(Date.now()) })}
      className={`min-h-[44px] justify-center rounded-[12px] border-[1.5px] px-[12px] ${isBest ? 'border-ink bg-ink' : 'border-soft'}`}
    >
      <Text className={`font-ui text-small font-semibold ${isBest ? 'text-ground' : 'text-ink'}`}>
        {isBest ? 'One of the best' : 'Best?'}
      </Text>
    </Pressable>
  );
}
