import { Carrier } from '@dorvel/core/model';
import { SLOT_RANGE } from '@dorvel/core/queue';
import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const Slot = z.object({
  minutes: z.number().int().min(SLOT_RANGE.shortest).max(SLOT_RANGE.longest),
  by: Carrier,
});
type Slot = z.infer<typeof Slot>;

interface SlotState extends Slot {
  change(changes: Partial<Slot>): void;
}

/** The minutes that the reader has, and whether eyes or ears are free; as they were last time. */
export const useSlot = create<SlotState>()((set, get) => ({
  ...readSetting('slot', Slot, { minutes: 25, by: 'eyes' }),
  change(changes) {
    set(changes);
    writeSetting('slot', Slot.parse(get()));
  },
}));
