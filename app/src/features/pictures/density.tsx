import { useMemo } from 'react';
import { Choice } from '@/ui/choice';
import { useKeys } from '@/ui/keys';
import { usePinch } from './use-pinch';
import { stepDensity, useWallSettings, type WallDensity } from './wall-store';

const CHOICES = [
  { value: 'few', label: 'Few, large' },
  { value: 'more', label: 'More' },
  { value: 'many', label: 'Many, small' },
] as const;

/** How many tiles stand beside each other on a wall: chosen by chips, by the keys + and −, or with two fingers. */
export function DensityChoice() {
  const { density, change } = useWallSettings();
  return (
    <Choice<WallDensity>
      name="How many beside each other"
      options={CHOICES}
      value={density}
      onChange={(value) => change({ density: value })}
    />
  );
}

/** The density of the walls on this device, with the handlers of two fingers for what holds a wall; the keys are listened to. */
export function useDensity(): { density: WallDensity; pinch: ReturnType<typeof usePinch> } {
  const density = useWallSettings((state) => state.density);
  const pinch = usePinch(stepDensity);
  useKeys(useMemo(() => ({ '+': () => stepDensity(-1), '-': () => stepDensity(1) }), []));
  return { density, pinch };
}
