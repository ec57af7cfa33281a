import { type MouseEvent, type PointerEvent, useEffect, useRef } from 'react';
import { tick } from './haptics';

/** As long as the platforms take. */
const LONG_MS = 500;
/** A finger that goes further than this scrolls. */
const STILL_PX = 10;
/** A browser may make a press of the finger's leaving, so long after it. */
const PRESS_AFTER_MS = 400;

/**
 * What a finger that stays does, beside the press of one that goes: the handlers of an element. By keys and pointers with buttons
 * there are other ways to the same.
 *
 * @param act undefined for nothing
 */
export function useLongPress(act: (() => void) | undefined) {
  const held = useRef<{ timer: ReturnType<typeof setTimeout>; x: number; y: number } | null>(null);
  const stop = () => {
    if (held.current) clearTimeout(held.current.timer);
    held.current = null;
  };
  useEffect(() => stop, []);
  return (
    act && {
      onPointerDown: ({ pointerType, clientX: x, clientY: y }: PointerEvent) => {
        stop();
        if (pointerType !== 'touch') return;
        const timer = setTimeout(() => {
          swallowPress();
          tick();
          act();
        }, LONG_MS);
        held.current = { timer, x, y };
      },
      onPointerMove: ({ clientX, clientY }: PointerEvent) => {
        const from = held.current;
        if (from && Math.hypot(clientX - from.x, clientY - from.y) > STILL_PX) stop();
      },
      onPointerUp: stop,
      onPointerCancel: stop,
      // The browser's own menu of a link would cover what the press has done.
      onContextMenu: (event: MouseEvent) => held.current && event.preventDefault(),
    }
  );
}

/** What the finger has done is done: when it leaves, nothing is pressed that has come to stand under it. */
function swallowPress(): void {
  const swallow = (event: Event) => {
    event.preventDefault();
    event.stopPropagation();
  };
  const over = () => {
    removeEventListener('click', swallow, true);
    removeEventListener('pointerdown', over, true);
  };
  const left = () => {
    removeEventListener('pointerup', left, true);
    removeEventListener('pointercancel', left, true);
    setTimeout(over, PRESS_AFTER_MS);
  };
  addEventListener('click', swallow, true);
  addEventListener('pointerup', left, true);
  addEventListener('pointercancel', left, true);
  // The next finger that comes means something of its own.
  addEventListener('pointerdown', over, true);
}
