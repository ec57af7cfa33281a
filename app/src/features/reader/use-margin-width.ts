import { type RefObject, useEffect, useState } from 'react';

/** Narrower than this, in CSS pixels, and what stands in it is hard to read; wider is not needed. */
const MIN = 150;
const MAX = 240;
/** What stands free at both sides of the text in any case; see .reader-content. */
const AROUND = 68;

/**
 * How much room a wide screen leaves beside the text, for a margin; 0 where there is too little, or the text is set in pages.
 *
 * @param holder holds the article, and is as wide as it could be
 */
export function useMarginWidth(
  holder: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
  on: boolean,
): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const [outer, text] = [holder.current, article.current];
    if (!outer || !text || !on) {
      setWidth(0);
      return undefined;
    }
    const look = () => {
      const measure = Number.parseFloat(getComputedStyle(text).maxWidth);
      const room = Math.floor(outer.clientWidth - AROUND - (Number.isNaN(measure) ? outer.clientWidth : measure));
      setWidth(room < MIN ? 0 : Math.min(room, MAX));
    };
    look();
    const resized = new ResizeObserver(look);
    resized.observe(outer);
    resized.observe(text);
    return () => resized.disconnect();
  }, [holder, article, on]);
  return width;
}
