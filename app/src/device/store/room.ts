import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from './settings-storage';

const Room = z.object({ megabytes: z.number().int().positive().nullable() });

/** What may be chosen, in megabytes; null for as much as there is. */
export const ROOMS: readonly (number | null)[] = [100, 300, 1000, null];

interface RoomState extends z.infer<typeof Room> {
  /** Whether the device had no more room when texts were brought ahead last. */
  isDeviceFull: boolean;
  give(megabytes: number | null): void;
}

/** How much of this device texts and pictures may take. */
export const useRoom = create<RoomState>()((set) => ({
  ...readSetting('room', Room, { megabytes: 1000 }),
  isDeviceFull: false,
  give(megabytes) {
    set({ megabytes });
    writeSetting('room', { megabytes });
  },
}));
