import { createClock, type HybridClock } from '@dorvel/core/sync';

/** The clock of a device that knows how far the server's is ahead of it. */
export interface DeviceClock {
  /** The time by the server's clock: all devices of a reader order what was done by the same one. */
  serverTime(): number;
  /**
   * Takes note of the server's clock.
   *
   * @param now what it showed
   * @param askedAt when it was asked, by this device's clock; the answer is taken to have been made halfway
   */
  setServerTime(now: number, askedAt: number): void;
  /** The stamps of what is done on this device. */
  clock: HybridClock;
}

/** Smaller differences than this may be no more than the way of the answer. */
const NOTEWORTHY_MS = 1000;

/**
 * @param now this device's own time, milliseconds since 1970
 * @param ahead how far the server's clock is ahead, in milliseconds, as it was told last: it is remembered
 */
export function clockOfDevice(
  device: string,
  now: () => number,
  ahead: { read(): number; write(ms: number): void },
): DeviceClock {
  let serverAheadMs = ahead.read();
  const serverTime = () => now() + serverAheadMs;
  return {
    serverTime,
    setServerTime(shown, askedAt) {
      const told = Math.round(shown - (askedAt + now()) / 2);
      if (Math.abs(told - serverAheadMs) < NOTEWORTHY_MS) return;
      serverAheadMs = told;
      ahead.write(told);
    },
    clock: createClock(device, serverTime),
  };
}
