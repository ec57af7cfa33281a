import { type RefObject, useRef } from 'react';
import type { NativeScrollEvent, NativeSyntheticEvent, ScrollView } from 'react-native';

const places = new Map<string, number>();

/** What comes within so many points of where it was is there again. */
const NEAR = 2;

/** What a ScrollView is given to be where it was when it is drawn again. */
interface KeptScroll {
  ref: RefObject<ScrollView | null>;
  scrollEventThrottle: number;
  onScroll(event: NativeSyntheticEvent<NativeScrollEvent>): void;
  onContentSizeChange(width: number, height: number): void;
}

/**
 * Keeps how far a screen was scrolled while another is looked at. Its parts come one after the other, so the place is gone to
 * as often as it grows, until it is reached.
 *
 * @param name of the screen
 */
export function useKeptScroll(name: string): KeptScroll {
  const ref = useRef<ScrollView>(null);
  const wanted = useRef(places.get(name) ?? 0);
  return {
    ref,
    scrollEventThrottle: 100,
    onScroll({ nativeEvent }) {
      const { y } = nativeEvent.contentOffset;
      // On the way there it is not where the reader went.
      if (wanted.current > 0 && y < wanted.current - NEAR) return;
      wanted.current = 0;
      places.set(name, y);
    },
    onContentSizeChange() {
      if (wanted.current > 0) ref.current?.scrollTo({ y: wanted.current, animated: false });
    },
  };
}
