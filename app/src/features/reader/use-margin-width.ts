import { type RefObject, useEffect, useMemo, useState } from 'react';

/** Narrower than this, in CSS pixels, and what stands in it is hard to read; wider is not needed. */
const MIN = 150;
const MAX = 240;
/** What stands free at both sides of the text in any case; see .reader-content. */
const AROUND = 68;
const AROUND_BOTH = 92;

export interface MarginRoom {
  /** In CSS pixels; 0 where there is no margin. */
  width: number;
  /** Whether as much is left at the other side, so that the text stands in the middle. */
  centred: boolean;
  /** What is free between the margin and the text. */
  free: number;
}

/**
 * How much room a wide screen leaves beside the text, for a margin; 0 where there is too little, or the text is set in pages.
 * Where there is enough for as much at the other side, the text stands in the middle.
 *
 * @param holder holds the article, and is as wide as it could be
 */
export function useMarginWidth(
  holder: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
  on: boolean,
): MarginRoom {
  const [room, setRoom] = useState(0);
  useEffect(() => {
    const [outer, text] = [holder.current, article.current];
    if (!outer || !text || !on) {
      setRoom(0);
      return undefined;
    }
    const look = () => {
      const measure = Number.parseFloat(getComputedStyle(text).maxWidth);
      setRoom(Math.floor(outer.clientWidth - AROUND - (Number.isNaN(measure) ? outer.clientWidth : measure)));
    };
    look();
    const resized = new ResizeObserver(look);
    resized.observe(outer);
    resized.observe(text);
    return () => resized.disconnect();
  }, [holder, article, on]);
  return useMemo(() => {
    const both = room - (AROUND_BOTH - AROUND);
    const centred = both >= 2 * MIN;
    const width = Math.min(MAX, Math.floor(centred ? both / 2 : room));
    if (width < MIN) return { width: 0, centred: false, free: 0 };
    return { width, centred, free: centred ? both / 2 - width : (room - width) / 2 };
  }, [room]);
}
