import { type ComponentType, lazy, Suspense, useState } from 'react';
import { create } from 'zustand';
import { whenQuiet } from '@/ui/quiet';

interface Part<Exports> {
  /** What is in it, once it is there. */
  use(): Exports | null;
  fetch(): Promise<Exports>;
  /** One of its screens, drawn when it is there. What it is asked is handed on. */
  screen<Name extends keyof Exports>(name: Name): Exports[Name];
}

/** A part of the app that is not seen first, and is not fetched with what is. */
function part<Exports extends object>(bring: () => Promise<Exports>): Part<Exports> {
  const here = create<{ exports: Exports | null }>(() => ({ exports: null }));
  const fetch = async () => {
    const exports = await bring();
    if (!here.getState().exports) here.setState({ exports });
    return exports;
  };
  return {
    use: () => here((state) => state.exports),
    fetch,
    screen: (name) => {
      const Waited = lazy(async () => ({ default: (await fetch())[name] as ComponentType<object> }));
      // Without a frame of nothing where it is there already; and not taken apart when it comes.
      const Drawn = (props: object) => {
        const [Screen] = useState(
          () => (here.getState().exports?.[name] as ComponentType<object> | undefined) ?? Waited,
        );
        return (
          <Suspense fallback={null}>
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
