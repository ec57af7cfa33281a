import { useWindowDimensions } from 'react-native';

const WIDE_FROM = 1000;

/** True where list and reader stand side by side. */
export function useWide(): boolean {
  return useWindowDimensions().width >= WIDE_FROM;
}
