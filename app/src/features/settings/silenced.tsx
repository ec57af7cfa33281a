import { silencedWords } from '@dorvel/core/model';
import { Text, View } from 'react-native';
import { silence } from '@/device/store/changes';
import { useSilences } from '@/device/store/library';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { SectionHeading } from '@/ui/section-heading';

/** What the reader does not want to be reminded by, to be let speak again. */
export function Silenced() {
  // The first steps have a page of their own.
  const silences = (useSilences() ?? []).filter(({ what }) => what.kind !== 'first-steps');
  return (
    <View role="region" aria-label="Silenced" className="gap-[10px]">
      <SectionHeading>Silenced in echoes, on all your devices</SectionHeading>
      {silences.length === 0 && (
        <Text className="font-ui text-small text-soft">
          Nothing is. “Not this word”, at an echo in a text, puts a word here; a site can be left out as well.
        </Text>
      )}
      <View {...namedList('Silenced', silences.length)}>
        {silences.map(({ id, what }) => {
          const words = silencedWords(what) ?? '';
          const name = what.kind === 'term' ? `“${words}”` : words;
          return (
            <View key={id} role="listitem" className="flex-row items-center gap-[10px] border-b border-line py-[6px]">
              <Text className="flex-1 font-ui text-base text-ink">{name}</Text>
              <Button label="Allow again" name={`Allow ${name} again`} onPress={() => void silence(what, false)} />
            </View>
          );
        })}
      </View>
    </View>
  );
}
