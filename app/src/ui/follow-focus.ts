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

/** A slow device may take so many looks more until the list is there. */
const MOST_LOOKS = 40;

/**
 * When what was open is closed, the focus goes back to what led to it, as soon as that is drawn; not away from where the reader
 * has put it meanwhile.
 *
 * @param href the address of what is open; null for nothing
 */
export function useFocusOnClosing(href: string | null): void {
  const before = useRef(href);
  useEffect(() => {
    const closed = before.current;
    before.current = href;
    if (href !== null || closed === null) return undefined;
    let looks = 0;
    let given: HTMLElement | null = null;
    const timer = setInterval(() => {
      const has = document.activeElement;
      const isLost = has === document.body;
      // A row that it was given to may leave the list yet: what is begun is queued.
      if (isLost) {
        given = rowOf(closed);
        given?.focus({ preventScroll: true });
      }
      if ((!isLost && has !== given) || (looks += 1) > MOST_LOOKS) clearInterval(timer);
    }, DRAWN_MS);
    return () => clearInterval(timer);
  }, [href]);
}

/** The row that leads to an address; where it has gone from the list meanwhile, the first of the list. */
const rowOf = (href: string): HTMLElement | null =>
  document.querySelector<HTMLElement>(`a[href="${CSS.escape(href)}"]`) ??
  document.querySelector<HTMLElement>('[role=main] [role=list] a');
