import type { ReactNode } from 'react';
import { ScrollView } from 'react-native';

/** Chips in one line, which scrolls sideways where they are too many. */
export function ChipRow({ name, children }: { name: string; children: ReactNode }) {
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      role="group"
      aria-label={name}
      contentContainerClassName="flex-row gap-[8px] py-[10px] pr-[20px]"
    >
      {children}
    </ScrollView>
  );
}
