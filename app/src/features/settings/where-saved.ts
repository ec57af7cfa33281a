import type { Place } from '@dorvel/core/model';
import { chooseAll } from '@/device/store/changes';
import { useSavingSettings } from './saving-settings-store';

const LIMIT_MS = 20_000;
/** Nobody is far from where they were two minutes ago. */
const MAX_AGE_MS = 120_000;

/** Where this device is, as far as the browser tells it: W3C Geolocation. Null where it does not, or is not allowed to. */
export function whereItIs(): Promise<Place | null> {
  return new Promise((tell) => {
    if (!('geolocation' in navigator)) {
      tell(null);
      return;
    }
    navigator.geolocation.getCurrentPosition(
      ({ coords }) =>
        tell({
          latitude: rounded(coords.latitude),
          longitude: rounded(coords.longitude),
          within: Math.min(1_000_000, Math.round(coords.accuracy)),
        }),
      () => tell(null),
      { timeout: LIMIT_MS, maximumAge: MAX_AGE_MS },
    );
  });
}

/** To some ten metres: more is not needed to find anything. */
const rounded = (degrees: number) => Math.round(degrees * 10_000) / 10_000;

/** Keeps where items were saved, for a reader who asked for that. Nothing waits for it. */
export async function keepWhere(itemIds: readonly string[]): Promise<void> {
  if (!useSavingSettings.getState().where || itemIds.length === 0) return;
  const place = await whereItIs();
  if (place) await chooseAll(itemIds.map((itemId) => ({ itemId, set: { place } })));
}
