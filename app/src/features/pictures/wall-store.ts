import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const DENSITIES = ['few', 'more', 'many'] as const;
export type WallDensity = (typeof DENSITIES)[number];

const WallSettings = z.object({
  density: z.enum(DENSITIES),
  /** Texts stand between the pictures. */
  withTexts: z.boolean(),
});

/** How the wall of pictures looks, on this device. */
export const useWallSettings = create<
  z.infer<typeof WallSettings> & { change(changes: Partial<z.infer<typeof WallSettings>>): void }
>()((set, get) => ({
  ...readSetting('wall', WallSettings, { density: 'more', withTexts: false }),
  change(changes) {
    set(changes);
    writeSetting('wall', WallSettings.parse(get()));
  },
}));

/** One step nearer or farther. */
export function stepDensity(by: 1 | -1): void {
  const { density, change } = useWallSettings.getState();
  const next = DENSITIES[DENSITIES.indexOf(density) + by];
  if (next) change({ density: next });
}
