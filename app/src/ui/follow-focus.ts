import { type RefObject, useEffect, useRef } from 'react';

/** What was opened or closed is drawn by then, in milliseconds; before, to look for it would hold the drawing up. */
const DRAWN_MS = 60;

/** The focus goes to what was opened, so that it is read aloud and scrolled by keys; not away from where something is written. */
export function useFocusOnOpening(opened: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const timer = setTimeout(() => {
      if (!document.activeElement?.closest('input, textarea, select, [contenteditable], dialog'))
        opened.current?.focus({ preventScroll: true });
    }, DRAWN_MS);
    return () => clearTimeout(timer);
  }, [opened]);
}

/**
 * When what was open is closed, the focus goes back to what led to it.
 *
 * @param href the address of what is open; null for nothing
 */
export function useFocusOnClosing(href: string | null): void {
  const before = useRef(href);
  useEffect(() => {
    const closed = before.current;
    before.current = href;
    if (href !== null || closed === null) return undefined;
    const timer = setTimeout(() => {
      if (document.activeElement !== document.body) return;
      const row = document.querySelector<HTMLElement>(`a[href="${CSS.escape(closed)}"]`);
      // Where it has gone from the list meanwhile, to the list.
      (row ?? document.querySelector<HTMLElement>('[role=main] [role=list] a'))?.focus({ preventScroll: true });
    }, DRAWN_MS);
    return () => clearTimeout(timer);
  }, [href]);
}
