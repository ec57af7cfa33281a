import { useDroppable } from '@dnd-kit/core';
import { useMemo } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { useTags } from '@/features/tags/use-tags';
import { SectionHeading } from '@/ui/section-heading';

const MAX_SHOWN = 40;

/** The reader's tags beside the table: what is dropped on one gets it; a press gives it to what is selected. */
export function TagTargets({ onPress }: { onPress(name: string): void }) {
  const tags = useTags();
  const shown = useMemo(
    () =>
      [...tags]
        .sort((a, b) => b.count - a.count)
        .slice(0, MAX_SHOWN)
        .sort((a, b) => a.key.localeCompare(b.key)),
    [tags],
  );
  return (
    <View role="region" aria-label="Tags to drop on" className="w-[210px] gap-[8px]">
      <SectionHeading>Drag onto a tag</SectionHeading>
      {shown.length === 0 && <Text className="font-ui text-small text-soft">No tags yet.</Text>}
      <ScrollView contentContainerClassName="gap-[6px] pb-[90px]">
        {shown.map(({ key, name }) => (
          <TagTarget key={key} name={name} onPress={() => onPress(name)} />
        ))}
      </ScrollView>
    </View>
  );
}

function TagTarget({ name, onPress }: { name: string; onPress(): void }) {
  const { setNodeRef, isOver } = useDroppable({ id: name });
  return (
    <button
      ref={setNodeRef}
      type="button"
      className="tag-target"
      data-over={isOver || undefined}
      aria-label={`Put ${name} on the selected`}
      onClick={onPress}
    >
      {name}
    </button>
  );
}
