import { createClock } from '@dorvel/core/sync';
import { z } from 'zod';
import { deviceName } from './device-name';
import { readSetting, writeSetting } from './settings-storage';

/** How far the server's clock is ahead of this device's, in milliseconds, as it was told last. */
let serverAheadMs = readSetting('server-ahead', z.number(), 0);

/** The time by the server's clock: all devices of a reader order what was done by the same one. */
export function serverTime(): number {
  return Date.now() + serverAheadMs;
}

/** Smaller differences than this may be no more than the way of the answer. */
const NOTEWORTHY_MS = 1000;

/**
 * Takes note of the server's clock.
 *
 * @param now what it showed
 * @param askedAt when it was asked, by this device's clock; the answer is taken to have been made halfway
 */
export function setServerTime(now: number, askedAt: number): void {
  const ahead = Math.round(now - (askedAt + Date.now()) / 2);
  if (Math.abs(ahead - serverAheadMs) < NOTEWORTHY_MS) return;
  serverAheadMs = ahead;
  writeSetting('server-ahead', ahead);
}

/** The stamps of what is done on this device. */
export const clock = createClock(deviceName, serverTime);
