import { HowMuch } from '@dorvel/core/model';
import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const SavingSettings = z.object({ howMuch: HowMuch });

interface SavingSettingsState extends z.infer<typeof SavingSettings> {
  keep(howMuch: HowMuch): void;
}

/** What a save keeps when nothing else is said, on this device. */
export const useSavingSettings = create<SavingSettingsState>()((set) => ({
  ...readSetting('saving', SavingSettings, { howMuch: 'words-and-pictures' }),
  keep(howMuch) {
    set({ howMuch });
    writeSetting('saving', { howMuch });
  },
}));
