import { type RefObject, useCallback, useEffect, useState } from 'react';

/**
 * The way back from where a link inside the text has led.
 *
 * @returns `backTo` is false when there is nowhere to go back to
 */
export function useWayBack(scroller: RefObject<HTMLElement | null>): { backTo: boolean; goBack(): void } {
  const [top, setTop] = useState<number | null>(null);
  useEffect(() => {
    const view = scroller.current;
    if (!view) return undefined;
    const went = (event: Event) => {
      const from = event instanceof CustomEvent && typeof event.detail === 'number' ? event.detail : null;
      // From one note to the next: the way back is still the one to the text.
      setTop((before) => before ?? from);
    };
    view.addEventListener('went-inside', went);
    return () => view.removeEventListener('went-inside', went);
  }, [scroller]);
  const goBack = useCallback(() => {
    const view = scroller.current;
    if (view && top !== null) view.scrollTop = top;
    setTop(null);
  }, [scroller, top]);
  return { backTo: top !== null, goBack };
}
