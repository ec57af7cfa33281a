import { noteText } from '@dorvel/core/notes';
import { dayInWords } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { Text, View } from 'react-native';
import { changeNote } from '@/device/store/changes';
import { useToday } from '@/device/store/day';
import { useNotes } from '@/device/store/library';
import { useFromMemory } from '@/features/cards/use-from-memory';
import { useWorkOver } from '@/features/work-over/use-work-over';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { useNotices } from '@/ui/notices';
import { SectionHeading } from '@/ui/section-heading';

/** What is due to be said from memory, calmly; nothing when nothing is. */
export function FromMemoryDue() {
  const plan = useFromMemory();
  const router = useRouter();
  const count = plan?.due.length ?? 0;
  if (count === 0) return null;
  return (
    <View role="region" aria-label="From memory" className="items-start gap-[10px] px-[20px] pt-[26px]">
      <SectionHeading>From memory</SectionHeading>
      <Text className="font-ui text-base text-ink">
        {count === 1 ? 'One question is due.' : `${count} questions are due.`}
      </Text>
      <Button label="From memory" onPress={() => router.push('/from-memory')} />
    </View>
  );
}

/** Passages that wait for the reader's own words. */
export function WorkOverDue() {
  const count = useWorkOver()?.due.length ?? 0;
  const router = useRouter();
  if (count === 0) return null;
  return (
    <View role="region" aria-label="Work it over" className="items-start gap-[10px] px-[20px] pt-[26px]">
      <SectionHeading>Work it over</SectionHeading>
      <Text className="font-ui text-base text-ink">
        {count === 1 ? 'One passage that you marked waits' : `${count} passages that you marked wait`} for your own
        words.
      </Text>
      <Button label="Work it over" onPress={() => router.push('/work-over')} />
    </View>
  );
}

/** What the reader meant to do by today. */
export function TasksDue() {
  const today = useToday();
  const due = (useNotes() ?? [])
    .filter(({ choices: { task, dueOn } }) => task.value === 'open' && dueOn.value !== null && dueOn.value <= today)
    .sort((a, b) => ((a.choices.dueOn.value ?? '') < (b.choices.dueOn.value ?? '') ? -1 : 1));
  if (due.length === 0) return null;
  return (
    <View role="region" aria-label="To do" className="gap-[6px] px-[20px] pt-[26px]">
      <SectionHeading>To do</SectionHeading>
      <View {...namedList('To do', due.length)}>
        {due.map((note) => {
          const day = note.choices.dueOn.value ?? today;
          const text = noteText(note);
          return (
            <View key={note.id} role="listitem" className="flex-row items-center gap-[8px] border-b border-line">
              <label className="tick">
                <input
                  type="checkbox"
                  checked={false}
                  aria-label={`Done: ${text.slice(0, 60)}`}
                  onChange={() => {
                    void changeNote(note, { task: 'done' });
                    useNotices.getState().show({
                      text: 'Done.',
                      action: { label: 'Undo', press: () => void changeNote(note, { task: 'open' }) },
                    });
                  }}
                />
              </label>
              <View className="min-w-0 flex-1 py-[9px]">
                <Text numberOfLines={3} className="font-ui text-base text-ink">
                  {text}
                </Text>
                {day < today && <Text className="font-ui text-small text-soft">by {dayInWords(day)}</Text>}
              </View>
            </View>
          );
        })}
      </View>
    </View>
  );
}
