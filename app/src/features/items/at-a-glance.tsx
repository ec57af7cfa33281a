import { hasText, type Item } from '@dorvel/core/model';
import { goOnFrom } from '@dorvel/core/reading';
import { captureWords, lengthInWords, publishedWords, savedWords, sourceInLine, titleOf } from '@dorvel/core/wording';
import { Text, View } from 'react-native';
import { useKeptCopies } from '@/device/store/kept-copies';
import { useGist } from '@/device/workers/relate/use-related';
import { Strand } from '@/ui/strand';

/** What an item is, how long, whether it came through and what it says: to decide by without opening it. */
export function AtAGlance({ item }: { item: Item }) {
  const { page } = item.capture;
  const copyId = page?.copyId ?? null;
  const kept = useKeptCopies();
  const gist = useGist(copyId, copyId !== null && (kept?.has(copyId) ?? false));
  const dates = [publishedWords(item), savedWords(item)].filter(Boolean).join(' · ');
  const words = lengthInWords(item);
  return (
    <>
      <Text role="heading" aria-level={2} className="font-read text-title font-semibold text-ink">
        {titleOf(item)}
      </Text>
      <Text className="font-ui text-small text-soft">
        {sourceInLine(item)} · {dates}
      </Text>
      {page && hasText(item) && (
        <View className="flex-row items-center gap-[12px]">
          <Strand
            minutes={page.minutes}
            passed={item.progress.furthest}
            heard={item.progress.heard}
            looseEnd={item.progress.position ? goOnFrom(item) : null}
            label={words}
            room={220}
          />
          <Text aria-hidden className="font-ui text-small text-soft">
            {words}
          </Text>
        </View>
      )}
      {page?.cameThrough.verdict !== 'whole' && (
        <Text className="font-ui text-small text-brick">{captureWords(item.capture)}</Text>
      )}
      {gist && gist.length > 0 ? (
        <View role="region" aria-label="Gist" className="gap-[8px]">
          {gist.map(({ text, start }) => (
            <p key={start} className="gist" lang={page?.language ?? undefined} dir="auto">
              {text}
            </p>
          ))}
        </View>
      ) : (
        page?.excerpt && <Text className="font-read text-row text-ink">{page.excerpt}</Text>
      )}
    </>
  );
}
