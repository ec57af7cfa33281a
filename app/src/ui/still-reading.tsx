import { Text } from 'react-native';
import { useLate } from './late';

/** Stands where a screen will, while what it shows is read from the device; not for what is there at once. */
export function StillReading() {
  return useLate(true) ? <Text className="p-[20px] font-ui text-base text-soft">Reading from this device…</Text> : null;
}
