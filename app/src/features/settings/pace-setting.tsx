import { paceConfidence } from '@dorvel/core/wording';
import { Text, View } from 'react-native';
import { usePace } from '@/device/store/pace';
import { Button } from '@/ui/button';
import { SectionHeading } from '@/ui/section-heading';

/** How fast this reader reads, as far as it is known, and beginning again. */
export function PaceSetting() {
  const { paces, beginAnew } = usePace();
  const known = Object.entries(paces).sort(([, a], [, b]) => b.sittings - a.sittings);
  const names = new Intl.DisplayNames('en', { type: 'language' });
  return (
    <View className="items-start gap-[8px]">
      <SectionHeading>Your pace</SectionHeading>
      {known.length === 0 ? (
        <Text className="font-ui text-small text-soft">
          Minutes are those of most readers, until you have read for a while.
        </Text>
      ) : (
        <>
          {known.map(([code, pace]) => (
            <Text key={code} className="font-ui text-base text-ink">
              {names.of(code) ?? code}: {Math.round(pace.wordsPerMinute)} words a minute, {paceConfidence(pace)} (from{' '}
              {pace.sittings === 1 ? 'one sitting' : `${pace.sittings} sittings`})
            </Text>
          ))}
          <Text className="font-ui text-small text-soft">
            All minutes are reckoned by it. Pauses and skimming are left out.
          </Text>
          <Button label="Measure again" onPress={beginAnew} />
        </>
      )}
    </View>
  );
}
