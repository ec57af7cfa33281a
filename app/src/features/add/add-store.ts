import { create } from 'zustand';

interface AddSheetState {
  isOpen: boolean;
  /** Files that were dropped on the window. */
  files: readonly File[];
  open(): void;
  openWith(files: readonly File[]): void;
  close(): void;
}

export const useAddSheet = create<AddSheetState>()((set) => ({
  isOpen: false,
  files: [],
  open: () => set({ isOpen: true, files: [] }),
  openWith: (files) => set({ isOpen: true, files }),
  close: () => set({ isOpen: false, files: [] }),
}));
