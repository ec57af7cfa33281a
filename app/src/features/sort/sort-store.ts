import { create } from 'zustand';

interface SortState {
  /** Items left for later, in this round. */
  later: ReadonlySet<string>;
  /** How many were decided on in this round. */
  decided: number;
  leave(id: string): void;
  decide(by: 1 | -1): void;
  begin(): void;
}

/** One round of sorting the Inbox. */
export const useSortRound = create<SortState>()((set) => ({
  later: new Set(),
  decided: 0,
  leave: (id) => set(({ later }) => ({ later: new Set([...later, id]) })),
  decide: (by) => set(({ decided }) => ({ decided: Math.max(0, decided + by) })),
  begin: () => set({ later: new Set(), decided: 0 }),
}));
