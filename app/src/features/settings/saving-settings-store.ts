import { HowMuch } from '@dorvel/core/model';
import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const SavingSettings = z.object({
  howMuch: HowMuch,
  /** Whether it is kept where something was saved. */
  where: z.boolean().default(false),
});

interface SavingSettingsState extends z.infer<typeof SavingSettings> {
  change(settings: Partial<z.infer<typeof SavingSettings>>): void;
}

/** What a save keeps when nothing else is said, on this device. */
export const useSavingSettings = create<SavingSettingsState>()((set, get) => ({
  ...readSetting('saving', SavingSettings, { howMuch: 'words-and-pictures', where: false }),
  change(settings) {
    set(settings);
    const { howMuch, where } = get();
    writeSetting('saving', { howMuch, where });
  },
}));
