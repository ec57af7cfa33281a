import { USUAL_LIMITS } from '@dorvel/core/cards';
import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const RecallSettings = z.object({
  fresh: z.number().int().min(0).max(200),
  repeated: z.number().int().min(0).max(2000),
});
type RecallSettings = z.infer<typeof RecallSettings>;

interface RecallSettingsState extends RecallSettings {
  change(changes: Partial<RecallSettings>): void;
}

/** How much a day's recall brings at most, on this device. */
export const useRecallSettings = create<RecallSettingsState>()((set, get) => ({
  ...readSetting('recall', RecallSettings, { ...USUAL_LIMITS }),
  change(changes) {
    set(changes);
    writeSetting('recall', RecallSettings.parse(get()));
  },
}));
