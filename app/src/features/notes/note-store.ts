import type { Note } from '@dorvel/core/model';
import { create } from 'zustand';

/** What is being written: a note that there is, or a new one and what it is to stand on. */
export type Writing =
  | { note: Note }
  | {
      note: null;
      itemId: Note['itemId'];
      on: Note['on'];
      /** What it is about, in words; null for one that stands free. */
      about: string | null;
    };

interface NoteSheetState {
  writing: Writing | null;
  write(writing: Writing): void;
  close(): void;
}

/** The sheet in which a note is written, from any screen. */
export const useNoteSheet = create<NoteSheetState>()((set) => ({
  writing: null,
  write: (writing) => set({ writing }),
  close: () => set({ writing: null }),
}));
