import { type RefObject, useCallback, useEffect, useState } from 'react';
import { offsetAtHeight, topOfOffset } from '@/article/text-geometry';
import { EDGE } from '@/ui/drawn';

/** The part of the width at either side in which a press turns the page. */
const SIDE = 0.3;
const SWIPE_PX = 40;
/** Above the first line of a page. */
const PADDING = 14;

interface Paging {
  on: boolean;
  rightToLeft: boolean;
  onTurn(): void;
  /** Whether what stands between two places of the text is to be passed over, as what the reader knows may be. */
  skips(from: number, to: number): boolean;
}

/**
 * Reading by pages instead of scrolling: a press at the side, a stroke, or a key turns. A page begins with a whole line, and
 * a line that is cut at its foot is covered, to be the first of the next one.
 *
 * @returns how high the cover at the foot is, in CSS pixels; 0 when there is none
 */
export function usePages(
  scroller: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
  { on, rightToLeft, onTurn, skips }: Paging,
): number {
  const [cover, setCover] = useState(0);

  const coverFoot = useCallback(() => {
    const [view, text] = [scroller.current, article.current];
    if (!view || !text) return;
    setCover(on ? cutAtFoot(view, text) : 0);
  }, [scroller, article, on]);

  useEffect(() => {
    const [view, text] = [scroller.current, article.current];
    if (!on || !view || !text) return undefined;
    const turn = (by: 1 | -1) => {
      onTurn();
      let before = NaN;
      do {
        if (view.scrollTop === before) break;
        before = view.scrollTop;
        view.scrollTop = by === 1 ? nextTop(view, text) : previousTop(view, text);
      } while (skips(...shownPart(view, text)));
    };
    const side = (x: number) => {
      const box = view.getBoundingClientRect();
      const at = (x - box.left) / box.width;
      const forward = rightToLeft ? at < SIDE : at > 1 - SIDE;
      const back = rightToLeft ? at > 1 - SIDE : at < SIDE;
      return forward ? 1 : back ? -1 : 0;
    };
    let start: { x: number; y: number } | null = null;
    // From the edge of a phone it goes back, and turns nothing.
    const down = ({ clientX: x, clientY: y, pointerType }: PointerEvent) =>
      (start = pointerType === 'touch' && x <= EDGE ? null : { x, y });
    const up = (event: PointerEvent) => {
      const from = start;
      start = null;
      const target = event.target instanceof Element ? event.target : null;
      if (!from || target?.closest('a, button, summary, input') || getSelection()?.isCollapsed === false) return;
      const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
      if (Math.abs(dx) > SWIPE_PX && Math.abs(dx) > Math.abs(dy)) turn(dx < 0 === !rightToLeft ? 1 : -1);
      else if (Math.abs(dy) > SWIPE_PX) turn(dy < 0 ? 1 : -1);
      else if (Math.hypot(dx, dy) < 8) {
        const by = side(event.clientX);
        if (by !== 0) turn(by);
      }
    };
    const keyed = (event: KeyboardEvent) => {
      if (event.target instanceof Element && event.target.closest('input, textarea, [role=slider], dialog')) return;
      const ahead = rightToLeft ? 'ArrowLeft' : 'ArrowRight';
      const behind = rightToLeft ? 'ArrowRight' : 'ArrowLeft';
      const by =
        event.key === ahead || event.key === 'PageDown' || (event.key === ' ' && !event.shiftKey)
          ? 1
          : event.key === behind || event.key === 'PageUp' || event.key === ' '
            ? -1
            : 0;
      if (by === 0) return;
      event.preventDefault();
      turn(by);
    };
    const wheeled = (event: WheelEvent) => {
      event.preventDefault();
      if (Math.abs(event.deltaY) > 4) turn(event.deltaY > 0 ? 1 : -1);
    };
    coverFoot();
    const resized = new ResizeObserver(coverFoot);
    resized.observe(text);
    resized.observe(view);
    view.addEventListener('scroll', coverFoot, { passive: true });
    view.addEventListener('pointerdown', down);
    view.addEventListener('pointerup', up);
    view.addEventListener('wheel', wheeled, { passive: false });
    addEventListener('keydown', keyed);
    return () => {
      resized.disconnect();
      view.removeEventListener('scroll', coverFoot);
      view.removeEventListener('pointerdown', down);
      view.removeEventListener('pointerup', up);
      view.removeEventListener('wheel', wheeled);
      removeEventListener('keydown', keyed);
      setCover(0);
    };
  }, [scroller, article, on, rightToLeft, onTurn, skips, coverFoot]);
  return cover;
}

/** The top, in the view, of the first line that is not wholly seen above a height; null behind the article's end. */
function lineFrom(height: number, view: HTMLElement, text: HTMLElement): number | null {
  const below = text.getBoundingClientRect().bottom - view.getBoundingClientRect().top;
  if (below <= height) return null;
  const offset = offsetAtHeight(
    text,
    height - (text.getBoundingClientRect().top - view.getBoundingClientRect().top),
    text,
  );
  const top = topOfOffset(text, offset, view);
  return top < height ? top : null;
}

/** From which place to which the text is seen. */
function shownPart(view: HTMLElement, text: HTMLElement): [from: number, to: number] {
  const above = view.getBoundingClientRect().top - text.getBoundingClientRect().top;
  return [
    offsetAtHeight(text, above + PADDING, text),
    offsetAtHeight(text, above + view.clientHeight - cutAtFoot(view, text) - 1, text),
  ];
}

function cutAtFoot(view: HTMLElement, text: HTMLElement): number {
  const top = lineFrom(view.clientHeight, view, text);
  // A block that is taller than a line, a picture say, is not covered: it is seen in two parts.
  return top !== null && view.clientHeight - top < 70 ? Math.max(0, view.clientHeight - top) : 0;
}

function nextTop(view: HTMLElement, text: HTMLElement): number {
  const cut = cutAtFoot(view, text);
  return view.scrollTop + view.clientHeight - cut - PADDING;
}

function previousTop(view: HTMLElement, text: HTMLElement): number {
  const to = Math.max(0, view.scrollTop - view.clientHeight + PADDING);
  if (to === 0) return 0;
  // So that the page begins with a whole line, and nothing between it and the present one is skipped.
  const before = lineFrom(to - view.scrollTop, view, text);
  return before === null ? to : view.scrollTop + before - PADDING + lineHeight(text);
}

function lineHeight(text: HTMLElement): number {
  return Number.parseFloat(getComputedStyle(text).lineHeight) || 28;
}
