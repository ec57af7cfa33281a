import type { ReactNode } from 'react';
import { ScrollView } from 'react-native';
import { ScreenHeader } from './screen-header';

/** A screen that is read from top to bottom under its name: settings, and what is set up once. */
export function Page({ title, aside, children }: { title: string; aside?: string; children: ReactNode }) {
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[640px] gap-[24px] px-[20px] pb-[40px]"
    >
      <ScreenHeader title={title} {...(aside === undefined ? {} : { aside })} />
      {children}
    </ScrollView>
  );
}
