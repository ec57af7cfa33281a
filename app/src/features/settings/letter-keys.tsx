import { useEffect } from 'react';
import { z } from 'zod';
import { create } from 'zustand';
import { readSetting, writeSetting } from '@/device/store/settings-storage';
import { setLettersOn } from '@/ui/keys';
import { Switch } from '@/ui/setting';

const NAME = 'letter-keys';

const useLetterKeys = create<{ on: boolean; turn(on: boolean): void }>()((set) => ({
  on: readSetting(NAME, z.boolean(), true),
  turn(on) {
    set({ on });
    writeSetting(NAME, on);
  },
}));

/** Has the keys do what the reader said of them on this device. */
export function useLetterKeysSetting(): void {
  const on = useLetterKeys((state) => state.on);
  useEffect(() => setLettersOn(on), [on]);
}

/** Keys of one letter can be turned off: words that are spoken to a computer come as letters, too. */
export function LetterKeys() {
  const { on, turn } = useLetterKeys();
  return (
    <Switch
      label="Keys of one letter"
      about="s saves, l listens; ? lists them all. Off for who speaks to their computer."
      on={on}
      onChange={turn}
    />
  );
}
