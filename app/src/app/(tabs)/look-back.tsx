import { lazy, Suspense } from 'react';

/** Looked at once a week: it comes when it is asked for, and is on the device by then. */
const LookBackScreen = lazy(() =>
  import('@/features/look-back/look-back-screen').then(({ LookBackScreen: screen }) => ({ default: screen })),
);

export default function LookBack() {
  return (
    <Suspense fallback={null}>
      <LookBackScreen />
    </Suspense>
  );
}
