import type { Period, Subject } from '@dorvel/core/look-back';
import type { Item } from '@dorvel/core/model';
import { Text, View } from 'react-native';
import { useSettledTexts } from '@/device/store/settled-texts';
import { useSubjects } from '@/device/workers/relate/use-related';
import { namedList } from '@/ui/named-list';
import { Part } from './items-of';

interface SubjectsProps {
  /** What the reader spent time with in the period, and in the one before. */
  now: readonly Item[];
  before: readonly Item[];
  kind: Period['kind'];
}

/** What a period was about, beside the one before: a bar for each, as long as so many items. */
export function Subjects({ now, before, kind }: SubjectsProps) {
  const subjects = useSubjects(
    now.map(({ id }) => id),
    before.map(({ id }) => id),
    useSettledTexts(),
  );
  if (!subjects || subjects.length === 0) return null;
  const most = Math.max(...subjects.flatMap(({ items, before: earlier }) => [items.length, earlier]));
  return (
    <Part title="What it was about">
      <View className="flex-row gap-[16px]">
        <Key colour="bg-accent" name={`this ${kind}`} />
        <Key colour="bg-soft" name={`the ${kind} before`} />
      </View>
      <View {...namedList('Subjects', subjects.length)}>
        {subjects.map((subject) => (
          <View key={subject.form} role="listitem" className="gap-[4px] py-[7px]" aria-label={inWords(subject, kind)}>
            <View className="flex-row justify-between gap-[8px]">
              <Text className="font-ui text-base text-ink">{subject.form}</Text>
              <Text className="font-ui text-small text-soft">{trend(subject)}</Text>
            </View>
            <Bar part={subject.items.length / most} colour="bg-accent" />
            <Bar part={subject.before / most} colour="bg-soft" />
          </View>
        ))}
      </View>
    </Part>
  );
}

function Bar({ part, colour }: { part: number; colour: string }) {
  return <View className={`h-[5px] rounded-[3px] ${colour}`} style={{ width: `${Math.max(1, part * 100)}%` }} />;
}

function Key({ colour, name }: { colour: string; name: string }) {
  return (
    <View className="flex-row items-center gap-[7px]">
      <View className={`h-[5px] w-[18px] rounded-[3px] ${colour}`} />
      <Text className="font-ui text-small text-ink">{name}</Text>
    </View>
  );
}

function trend({ items, before }: Subject): string {
  if (before === 0) return 'new';
  return items.length > before ? 'more' : items.length < before ? 'less' : 'as before';
}

function inWords({ form, items, before }: Subject, kind: Period['kind']): string {
  return `${form}: ${items.length} ${items.length === 1 ? 'item' : 'items'} this ${kind}, ${before} the ${kind} before`;
}
