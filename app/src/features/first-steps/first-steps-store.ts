import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

/** Whether the first steps stand on Now, on this device. */
export const useFirstSteps = create<{ dismissed: boolean; dismiss(dismissed: boolean): void }>()((set) => ({
  dismissed: readSetting('first-steps-dismissed', z.boolean(), false),
  dismiss(dismissed) {
    set({ dismissed });
    writeSetting('first-steps-dismissed', dismissed);
  },
}));
