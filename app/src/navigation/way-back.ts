import { create } from 'zustand';

/** From an echo's passage the way back to the text in which it was pressed. */
interface WayBack {
  from: { href: string; title: string };
  /** The item that was opened by it. */
  toItemId: string;
}

/** Held until another way is taken: an echo followed from there leads back to there. */
export const useWayBack = create<{ way: WayBack | null; take(way: WayBack | null): void }>()((set) => ({
  way: null,
  take: (way) => set({ way }),
}));
