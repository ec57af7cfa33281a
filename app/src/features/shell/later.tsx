import { type ComponentType, lazy, type ReactNode, Suspense, useState } from 'react';
import { Text, View } from 'react-native';
import { create } from 'zustand';
import { PartAway } from '@/ui/boundary';
import { useLate } from '@/ui/late';
import { whenQuiet } from '@/ui/quiet';

interface Part<Exports> {
  /** What is in it, once it is there. */
  use(): Exports | null;
  fetch(): Promise<Exports>;
  /** One of its screens, drawn when it is there, with what stands in its place until then. What it is asked is handed on. */
  screen<Name extends keyof Exports>(name: Name, meanwhile?: ReactNode): Exports[Name];
}

/** Where a screen will stand, over what is below it. */
function OnItsWay() {
  const late = useLate(true);
  return (
    <View role="status" className="flex-1 bg-ground p-[20px]">
      {late && <Text className="font-ui text-base text-soft">On its way to this device…</Text>}
    </View>
  );
}

/** What Expo calls its error where a script does not come; whatever else is thrown is wrong with what came. */
const NOT_FETCHED = 'AsyncRequireError';

/** A part of the app that is not seen first, and is not fetched with what is. */
function part<Exports extends object>(bring: () => Promise<Exports>): Part<Exports> {
  const here = create<{ exports: Exports | null }>(() => ({ exports: null }));
  const fetch = async () => {
    const exports = await bring().catch((cause: unknown) => {
      if (!(cause instanceof Error && cause.name === NOT_FETCHED)) throw cause;
      throw new PartAway('A part of the app could not be fetched.', { cause });
    });
    if (!here.getState().exports) here.setState({ exports });
    return exports;
  };
  return {
    use: () => here((state) => state.exports),
    fetch,
    screen: (name, meanwhile = <OnItsWay />) => {
      const load = async () => ({ default: (await fetch())[name] as ComponentType<object> });
      // Without a frame of nothing where it is there already; not taken apart when it comes; fetched anew where it is tried again.
      const Drawn = (props: object) => {
        const [Screen] = useState(
          () => (here.getState().exports?.[name] as ComponentType<object> | undefined) ?? lazy(load),
        );
        return (
          <Suspense fallback={meanwhile}>
            <Screen {...props} />
          </Suspense>
        );
      };
      return Drawn as unknown as Exports[typeof name];
    },
  };
}

const screens = part(() => import('./later-screens'));
/** What a text is read and heard with. */
export const reading = part(() => import('./reading-part'));

/** One of the screens that are not seen first. */
export const later = screens.screen;

/** By then the first list stands, in milliseconds; what a text is read with also comes when one is set ahead. */
const FIRST_LIST_MS = 2500;
const SCREENS_MS = 3000;

/** Fetches both once nothing else is to be done. @returns ends the waiting */
export function fetchLaterWhenIdle(): () => void {
  const ends = (
    [
      [FIRST_LIST_MS, reading.fetch],
      [SCREENS_MS, screens.fetch],
    ] as const
  ).map(([afterMs, fetch]) =>
    whenQuiet(afterMs, () => {
      fetch().catch(() => {
        // Fetched again when one of them is asked for.
      });
    }),
  );
  return () => ends.forEach((end) => end());
}
