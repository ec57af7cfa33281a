import type { changeMaker } from '@dorvel/core/records';
import type { DeviceClock } from '../../app/src/device/store/device-clock';
import type { DeviceStore } from '../../app/src/device/store/store';

/** A device of the simulation. */
export interface Device {
  name: string;
  store: DeviceStore;
  /** How wrong its clock is. */
  skewMs: number;
  own: DeviceClock;
  make: ReturnType<typeof changeMaker>;
}

/** Whose turn it is, and what time it is in truth: the app's modules are one for all devices of the simulation. */
export const turn: { device: Device | null; now: number } = { device: null, now: 0 };
