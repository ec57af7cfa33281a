import { useRef } from 'react';

/** Two fingers must come so much nearer or go so much farther apart for one step. */
const STEP = 1.35;

interface Touches {
  nativeEvent: { touches: readonly { pageX: number; pageY: number }[] };
}

/**
 * Tells of two fingers that are drawn apart or together.
 *
 * @param onStep −1 for nearer: fewer, larger; 1 for farther
 */
export function usePinch(onStep: (by: 1 | -1) => void): {
  onTouchStart(event: Touches): void;
  onTouchMove(event: Touches): void;
} {
  const from = useRef<number | null>(null);
  const apart = ({ nativeEvent: { touches } }: Touches) => {
    const [one, other] = touches;
    return one && other ? Math.hypot(one.pageX - other.pageX, one.pageY - other.pageY) : null;
  };
  return {
    onTouchStart: (event) => void (from.current = apart(event)),
    onTouchMove(event) {
      const now = apart(event);
      if (now === null || from.current === null) return;
      const by = now / from.current;
      if (by < STEP && by > 1 / STEP) return;
      onStep(by > 1 ? -1 : 1);
      from.current = now;
    },
  };
}
