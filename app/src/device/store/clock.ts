import { z } from 'zod';
import { clockOfDevice } from './device-clock';
import { deviceName } from './device-name';
import { readSetting, writeSetting } from './settings-storage';

/** The clock of this device. */
export const { serverTime, setServerTime, clock } = clockOfDevice(deviceName, Date.now, {
  read: () => readSetting('server-ahead', z.number(), 0),
  write: (ms) => writeSetting('server-ahead', ms),
});
