import { type RefObject, useEffect } from 'react';
import { EDGE, meansBack } from './drawn';
import { tick } from './haptics';

/**
 * A stroke of the finger from the left edge goes back; what is left follows the finger.
 *
 * @param back null where there is nothing to go back to
 */
export function useEdgeBack(element: RefObject<HTMLElement | null>, back: (() => void) | null): void {
  useEffect(() => {
    const moved = element.current;
    if (!moved || !back) return undefined;
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    let from: { x: number; y: number } | null = null;
    let isStroke = false;
    const rest = () => {
      from = null;
      isStroke = false;
      moved.style.transform = '';
    };
    const begin = ({ touches }: TouchEvent) => {
      const [touch] = touches;
      from = touches.length === 1 && touch && touch.clientX <= EDGE ? { x: touch.clientX, y: touch.clientY } : null;
    };
    const move = (event: TouchEvent) => {
      const [touch] = event.touches;
      if (!from || !touch) return;
      const [dx, dy] = [touch.clientX - from.x, touch.clientY - from.y];
      // Once it goes down it is a scroll, and stays one.
      if (!isStroke && Math.abs(dy) > 10 && Math.abs(dy) > dx) from = null;
      if (!from || dx < 10) return;
      isStroke = true;
      event.preventDefault();
      if (!still) moved.style.transform = `translateX(${dx}px)`;
    };
    const end = ({ changedTouches }: TouchEvent) => {
      const [touch] = changedTouches;
      const goes =
        from && isStroke && touch && meansBack(touch.clientX - from.x, touch.clientY - from.y, moved.clientWidth);
      rest();
      if (!goes) return;
      tick();
      back();
    };
    moved.addEventListener('touchstart', begin, { passive: true });
    moved.addEventListener('touchmove', move, { passive: false });
    moved.addEventListener('touchend', end);
    moved.addEventListener('touchcancel', rest);
    return () => {
      rest();
      moved.removeEventListener('touchstart', begin);
      moved.removeEventListener('touchmove', move);
      moved.removeEventListener('touchend', end);
      moved.removeEventListener('touchcancel', rest);
    };
  }, [element, back]);
}
