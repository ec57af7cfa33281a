import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const ListSettings = z.object({
  /** The picture that a page puts first stands small at the end of its row. */
  pictures: z.boolean(),
  density: z.enum(['roomy', 'compact']),
});
type ListSettings = z.infer<typeof ListSettings>;

/** How lists of items look, on this device. */
export const useListSettings = create<ListSettings & { change(changes: Partial<ListSettings>): void }>()(
  (set, get) => ({
    ...readSetting('lists', ListSettings, { pictures: true, density: 'roomy' }),
    change(changes) {
      set(changes);
      writeSetting('lists', ListSettings.parse(get()));
    },
  }),
);
