import { lazy, Suspense } from 'react';

/** The charts are large and looked at now and then: they come when they are asked for, and are on the device by then. */
const DoingScreen = lazy(() =>
  import('@/features/statistics/statistics-screen').then(({ StatisticsScreen: screen }) => ({
    default: screen,
  })),
);

export default function Doing() {
  return (
    <Suspense fallback={null}>
      <DoingScreen />
    </Suspense>
  );
}
