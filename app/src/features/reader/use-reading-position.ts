import { anchorAt } from '@dorvel/core/highlight';
import type { Item, TextAnchor } from '@dorvel/core/model';
import { fractionAbove, wordsAbove } from '@dorvel/core/text';
import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import { lineAt, scrollForLine } from '@/article/reading-line';
import { offsetAtHeight, topOfOffset } from '@/article/text-geometry';
import { textOf } from '@/device/cache/snapshot-cache';
import { recordProgress } from '@/device/store/changes';
import type { KeptCopy } from '@/device/store/store';
import { useReadingSession } from './use-reading-session';

/** A place counts when the reader has stayed at it this long; what flies past does not. */
const DWELL_MS = 700;

interface ReadingPosition {
  /** The fraction of words above the reading line now. */
  fraction: number;
  /** Goes to a fraction of the text, as a move of the reader's. */
  goTo(fraction: number): void;
  /** The offset in the text that the reading line is at. */
  place(): number;
  /** Takes a place for the reader's without scrolling there: the voice is at it. */
  follow(offset: number): void;
  /** Goes to a place that is recorded already: the voice has stopped there. */
  rest(offset: number): void;
  /** True when the reader has moved since the text was opened, looks at what was found, or is carried: their place is here. */
  stays(): boolean;
}

/**
 * Keeps the reader's place: goes to it when the text opens, holds it when the layout changes, records it as they
 * move. Only moves of the reader's own are recorded.
 *
 * @param start the offset at which the text is opened
 * @param carried true while the voice carries the reader: what scrolls then is no reading by eye
 * @param on told of the reader's moves: `begun` at the first one in an unread item, `moved` with the place of each
 */
export function useReadingPosition(
  scroller: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
  item: Item,
  copy: KeptCopy,
  start: number,
  carried: boolean,
  on: { begun(): void; moved(offset: number): void },
): ReadingPosition {
  const text = textOf(copy);
  const offset = useRef(start);
  const [fraction, setFraction] = useState(() => fractionAbove(text.starts, start));
  const movedByReader = useRef(false);
  const recorded = useRef<number | null>(null);
  const latest = useRef({ item, carried, on });
  useEffect(() => {
    latest.current = { item, carried, on };
  });
  const noteReading = useReadingSession(item.id);

  /** Where we scrolled to ourselves, and how tall the content was when the place was last known to be right. */
  const ours = useRef({ top: -1, height: -1 });
  const dwell = useRef<ReturnType<typeof setTimeout>>(undefined);

  const restore = useCallback(() => {
    const view = scroller.current;
    if (!view || !article.current || latest.current.carried || view.dataset.aside) return;
    // At the very start the headline should be seen, not the first line under it.
    const line =
      offset.current === 0
        ? 0
        : topOfOffset(article.current, offset.current, article.current) +
          contentTop(view, article.current) +
          1;
    view.scrollTop = scrollForLine(line, sizeOf(view, article.current));
    ours.current = { top: view.scrollTop, height: view.scrollHeight };
  }, [scroller, article]);

  const record = useCallback(() => {
    const { item: now, carried: byVoice, on: tell } = latest.current;
    if (byVoice) return;
    noteReading(wordsAbove(text.starts, offset.current));
    if (!movedByReader.current || recorded.current === offset.current) return;
    recorded.current = offset.current;
    const anchor: TextAnchor = anchorAt(text.plain, text.starts, offset.current);
    if (now.progress.furthest === 0 && anchor.fraction > 0) tell.begun();
    tell.moved(offset.current);
    void recordProgress(now.id, Math.max(now.progress.furthest, anchor.fraction), anchor);
  }, [text, noteReading]);

  const look = useCallback(() => {
    const view = scroller.current;
    if (!view || !article.current) return;
    const line = lineAt({ scrollTop: view.scrollTop, ...sizeOf(view, article.current) });
    const atEnd =
      article.current.dataset.shown === undefined &&
      view.scrollTop >= view.scrollHeight - view.clientHeight - 2;
    offset.current = atEnd
      ? text.plain.text.length
      : view.scrollTop <= 1
        ? 0
        : offsetAtHeight(article.current, line - contentTop(view, article.current), article.current);
    ours.current = { top: -1, height: view.scrollHeight };
    setFraction(fractionAbove(text.starts, offset.current));
  }, [scroller, article, text]);

  useEffect(() => {
    const view = scroller.current;
    const content = article.current;
    if (!view || !content) return undefined;
    offset.current = start;
    let frame = 0;
    const scrolled = () => {
      if (!movedByReader.current || latest.current.carried) return;
      // A look at a note, or at what was found, is no reading: the place stays where the reader left it.
      if (view.dataset.aside) return;
      // Our own scrolling is no move of the reader's; nor is the browser's when the layout has changed under it,
      // which is put right as soon as the change has been seen. Measuring then would let the place drift.
      const { top, height } = ours.current;
      if (Math.abs(view.scrollTop - top) < 1 || view.scrollHeight !== height) return;
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(look);
      clearTimeout(dwell.current);
      dwell.current = setTimeout(record, DWELL_MS);
    };
    noteReading(wordsAbove(text.starts, start));
    const moved = (event?: Event) => {
      movedByReader.current = true;
      if (event?.type !== 'pointerdown') delete view.dataset.aside;
    };
    const keyed = (event: KeyboardEvent) => {
      if (/^(?:Arrow|Page|Home|End| )/.test(event.key)) moved();
    };
    const hidden = () => {
      if (document.visibilityState === 'hidden') record();
    };
    // The fonts and the pictures' sizes settle after the first layout, and settings change it later: hold the place.
    let shown = content.dataset.shown;
    const settle = new ResizeObserver((changes) => {
      const isBelow = changes.every(({ target }) => target === around);
      const isNextPart = content.dataset.shown !== shown;
      shown = content.dataset.shown;
      if (!movedByReader.current || !(isBelow || isNextPart)) {
        restore();
        return;
      }
      // What comes or goes under what is seen, a further part or related items, must not move the text under the reader's eyes.
      const { top } = ours.current;
      ours.current.height = view.scrollHeight;
      // They may have scrolled in the very frame in which the part came.
      if (isNextPart && Math.abs(view.scrollTop - top) >= 1 && !latest.current.carried) {
        look();
        clearTimeout(dwell.current);
        dwell.current = setTimeout(record, DWELL_MS);
      }
    });
    const around = view.firstElementChild;
    for (const each of [content, view, around]) if (each) settle.observe(each);
    view.addEventListener('scroll', scrolled, { passive: true });
    for (const kind of ['wheel', 'touchmove', 'pointerdown'] as const)
      view.addEventListener(kind, moved, { passive: true });
    addEventListener('keydown', keyed);
    document.addEventListener('visibilitychange', hidden);
    addEventListener('pagehide', record);
    return () => {
      clearTimeout(dwell.current);
      cancelAnimationFrame(frame);
      settle.disconnect();
      view.removeEventListener('scroll', scrolled);
      for (const kind of ['wheel', 'touchmove', 'pointerdown'] as const)
        view.removeEventListener(kind, moved);
      removeEventListener('keydown', keyed);
      document.removeEventListener('visibilitychange', hidden);
      removeEventListener('pagehide', record);
      record();
      movedByReader.current = false;
    };
  }, [scroller, article, start, text, restore, look, record, noteReading]);

  const goTo = useCallback(
    (to: number) => {
      movedByReader.current = true;
      delete scroller.current?.dataset.aside;
      const { starts, plain } = text;
      offset.current =
        to >= 1 ? plain.text.length : to <= 0 ? 0 : (starts[Math.floor(to * starts.length)] ?? 0);
      setFraction(fractionAbove(starts, offset.current));
      restore();
      if (to >= 1 && scroller.current) scroller.current.scrollTop = scroller.current.scrollHeight;
      clearTimeout(dwell.current);
      dwell.current = setTimeout(record, DWELL_MS);
    },
    [text, restore, scroller, record],
  );
  const place = useCallback(() => offset.current, []);
  const follow = useCallback(
    (to: number) => {
      offset.current = to;
      setFraction(fractionAbove(text.starts, to));
      noteReading(null);
    },
    [text, noteReading],
  );
  const rest = useCallback(
    (to: number) => {
      delete scroller.current?.dataset.aside;
      follow(to);
      recorded.current = to;
      // The reader has not moved by eye yet; until they do nothing is recorded.
      movedByReader.current = false;
      latest.current.carried = false;
      restore();
    },
    [follow, restore, scroller],
  );
  const stays = useCallback(
    () => movedByReader.current || latest.current.carried || scroller.current?.dataset.aside !== undefined,
    [scroller],
  );
  return { fraction, goTo, place, follow, rest, stays };
}

/** The sizes that the reading line goes by. While only a part of the text is set, the height of the rest is estimated. */
function sizeOf(view: HTMLElement, article: HTMLElement): { height: number; scrollHeight: number } {
  const shown = Number(article.dataset.shown ?? 1);
  const rest = article.offsetHeight * (1 / shown - 1);
  return { height: view.clientHeight, scrollHeight: view.scrollHeight + rest };
}

/** How far below the top of the scrolled content the article begins. */
function contentTop(view: HTMLElement, article: HTMLElement): number {
  return article.getBoundingClientRect().top - view.getBoundingClientRect().top + view.scrollTop;
}
