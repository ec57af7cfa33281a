import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const Gathered = z.array(z.uuid()).max(2000);

interface GatheredState {
  /** Highlights that were laid together, in the reader's own order. */
  ids: readonly string[];
  /** Puts highlights behind what is gathered; those that are there stay where they are. */
  gather(ids: readonly string[]): void;
  drop(ids: readonly string[]): void;
  move(from: number, to: number): void;
  /** Puts all back as it was. */
  restore(ids: readonly string[]): void;
}

/** What the reader lays together to use elsewhere, on this device. */
export const useGathered = create<GatheredState>()((set, get) => {
  const keep = (ids: readonly string[]) => {
    const kept = ids.slice(0, 2000);
    set({ ids: kept });
    writeSetting('gathered', kept);
  };
  return {
    ids: readSetting('gathered', Gathered, []),
    gather: (ids) => keep([...new Set([...get().ids, ...ids])]),
    drop: (ids) => keep(get().ids.filter((id) => !ids.includes(id))),
    move(from, to) {
      const ids = [...get().ids];
      ids.splice(to, 0, ...ids.splice(from, 1));
      keep(ids);
    },
    restore: keep,
  };
});
