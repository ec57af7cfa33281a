import { USUAL_LIMITS } from '@dorvel/core/cards';
import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const FromMemorySettings = z.object({
  fresh: z.number().int().min(0).max(200),
  repeated: z.number().int().min(0).max(2000),
});
type FromMemorySettings = z.infer<typeof FromMemorySettings>;

interface FromMemorySettingsState extends FromMemorySettings {
  change(changes: Partial<FromMemorySettings>): void;
}

/** How much a day asks from memory at most, on this device. */
export const useFromMemorySettings = create<FromMemorySettingsState>()((set, get) => ({
  ...readSetting('recall', FromMemorySettings, { ...USUAL_LIMITS }),
  change(changes) {
    set(changes);
    writeSetting('recall', FromMemorySettings.parse(get()));
  },
}));
