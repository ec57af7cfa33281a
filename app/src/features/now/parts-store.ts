import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

/** The parts of Now, in the order in which they stand unless the reader says otherwise. */
export const NOW_PARTS = [
  'go-on',
  'slot',
  'pinned',
  'come-back',
  'to-do',
  'from-memory',
  'work-over',
  'inbox',
  'looking',
] as const;
const NowPart = z.enum(NOW_PARTS);
export type NowPart = z.infer<typeof NowPart>;

export const PART_NAMES: Readonly<Record<NowPart, string>> = {
  'go-on': 'Go on with',
  slot: 'The slot and what fills it',
  pinned: 'Pinned',
  'come-back': 'Come back',
  'to-do': 'To do',
  'from-memory': 'From memory',
  'work-over': 'Work it over',
  inbox: 'Inbox, when it was not emptied',
  looking: 'Look-back and How I am doing',
};

const Arranged = z.object({ order: z.array(NowPart), hidden: z.array(NowPart) });

interface PartsState extends z.infer<typeof Arranged> {
  /** Puts the part at one place of the order at another. */
  move(from: number, to: number): void;
  show(part: NowPart, shown: boolean): void;
}

/** Which parts stand on Now, on this device, and in what order. */
export const useNowParts = create<PartsState>()((set, get) => {
  const arrange = (changes: Partial<z.infer<typeof Arranged>>) => {
    set(changes);
    writeSetting('now-parts', Arranged.parse(get()));
  };
  const { order, hidden } = readSetting('now-parts', Arranged, { order: [...NOW_PARTS], hidden: [] });
  return {
    order: completed(order),
    hidden,
    move: (from, to) => arrange({ order: moved(get().order, from, to) }),
    show: (part, shown) =>
      arrange({ hidden: shown ? get().hidden.filter((each) => each !== part) : [...get().hidden, part] }),
  };
});

/** Whether the sheet is open in which they are arranged. */
export const useArranging = create<{ isOpen: boolean; open(): void; close(): void }>()((set) => ({
  isOpen: false,
  open: () => set({ isOpen: true }),
  close: () => set({ isOpen: false }),
}));

/** An order that was kept before a part was thought of has that part at its end, and none twice. */
export function completed(order: readonly NowPart[]): NowPart[] {
  return [...new Set([...order, ...NOW_PARTS])];
}

/** A list with the one at one place put at another. */
export function moved<Each>(list: readonly Each[], from: number, to: number): Each[] {
  const taken = list[from];
  if (taken === undefined) return [...list];
  const rest = list.filter((_, at) => at !== from);
  return [...rest.slice(0, to), taken, ...rest.slice(to)];
}
