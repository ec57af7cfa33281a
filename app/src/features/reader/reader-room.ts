import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';

const Beside = z.enum(['list', 'contents', 'nothing']);

interface ReaderRoom {
  /** What stands at the left of an open text on a wide screen. */
  beside: z.infer<typeof Beside>;
  /** Whether an open text has the whole of the screen. */
  whole: boolean;
  setBeside(beside: z.infer<typeof Beside>): void;
  setWhole(whole: boolean): void;
}

/** What a wide screen does with the room around an open text, on this device. */
export const useReaderRoom = create<ReaderRoom>()((set, get) => ({
  beside: readSetting('beside-text', Beside, 'list'),
  whole: false,
  setBeside(beside) {
    set({ beside });
    writeSetting('beside-text', beside);
  },
  setWhole(whole) {
    if (whole === get().whole) return;
    set({ whole });
    const turned = whole
      ? document.fullscreenEnabled && document.documentElement.requestFullscreen({ navigationUI: 'hide' })
      : document.fullscreenElement && document.exitFullscreen();
    // Where the browser does not give its own frame away, ours is away all the same.
    if (turned) turned.catch(() => undefined);
  },
}));

/** The list goes out of an open text's way, and comes back. */
export const foldList = (): void => {
  const { beside, setBeside } = useReaderRoom.getState();
  setBeside(beside === 'list' ? 'nothing' : 'list');
};

/** The contents come to stand where the list does, and go again. */
export const foldContents = (): void => {
  const { beside, setBeside } = useReaderRoom.getState();
  setBeside(beside === 'contents' ? 'list' : 'contents');
};

/** An open text gets the whole of the screen, or gives it back. */
export const turnWhole = (): void => useReaderRoom.getState().setWhole(!useReaderRoom.getState().whole);

/** The browser has ways of its own to leave the whole screen. @returns what stops following */
export function followWhole(): () => void {
  const turned = () => {
    if (!document.fullscreenElement) useReaderRoom.setState({ whole: false });
  };
  document.addEventListener('fullscreenchange', turned);
  return () => document.removeEventListener('fullscreenchange', turned);
}
