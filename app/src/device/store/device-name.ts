import { z } from 'zod';
import { readSetting, writeSetting } from './settings-storage';

/** The device's name in clock stamps: made once, at random. */
export const deviceName = (() => {
  const known = readSetting(
    'device',
    z
      .string()
      .regex(/^[0-9a-z]{8}$/)
      .nullable(),
    null,
  );
  if (known) return known;
  const made = Array.from(crypto.getRandomValues(new Uint8Array(8)), (byte) => (byte % 36).toString(36)).join('');
  writeSetting('device', made);
  return made;
})();
