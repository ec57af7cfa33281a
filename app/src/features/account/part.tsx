import type { AccountOverview } from '@dorvel/core/model';
import type { ReactNode } from 'react';
import { Text, View } from 'react-native';
import { SectionHeading } from '@/ui/section-heading';

/** What a part of the screen gets: what the server knows, and how to change it. */
export interface PartProps {
  overview: AccountOverview;
  /** Does something on the server, then asks anew what it knows. @returns whether it went well */
  change(work: () => Promise<unknown>): Promise<boolean>;
}

/** A part of the screen under its heading. */
export function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <View role="region" aria-label={name} className="gap-[10px]">
      <SectionHeading>{name}</SectionHeading>
      {children}
    </View>
  );
}

/** One of several, with the button that takes it away. */
export function Line({ title, about, end }: { title: string; about: string; end?: ReactNode }) {
  return (
    <View role="listitem" className="flex-row items-center justify-between gap-[12px] border-b border-line py-[10px]">
      <View className="min-w-0 flex-1">
        <Text className="font-read text-row text-ink">{title}</Text>
        <Text className="font-ui text-small text-soft">{about}</Text>
      </View>
      {end}
    </View>
  );
}
