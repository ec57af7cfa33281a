import { type ComponentType, lazy, Suspense } from 'react';
import { whenQuiet } from '@/ui/quiet';

type Later = typeof import('./later-screens');
const fetchLater = () => import('./later-screens');

/** One of the screens that are not seen first, drawn when it is there. What it is asked is handed on. */
export function later<Name extends keyof Later>(name: Name): Later[Name] {
  const Screen = lazy(async () => ({ default: (await fetchLater())[name] as ComponentType<object> }));
  const Drawn = (props: object) => (
    <Suspense fallback={null}>
      <Screen {...props} />
    </Suspense>
  );
  return Drawn as unknown as Later[Name];
}

/** By then the first list stands, in milliseconds. */
const FIRST_LIST_MS = 2500;

/** Fetches them once nothing else is to be done. @returns ends the waiting */
export function fetchLaterWhenIdle(): () => void {
  return whenQuiet(FIRST_LIST_MS, () => {
    fetchLater().catch(() => {
      // Fetched again when one of them is asked for.
    });
  });
}
