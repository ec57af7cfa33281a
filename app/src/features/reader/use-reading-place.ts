import { anchorAt, findAnchor } from '@dorvel/core/highlight';
import type { Item } from '@dorvel/core/model';
import { type RefObject, useEffect, useLayoutEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import { articleSurface } from '@/article/article-surface';
import { createReadingPlace, type PlaceSeen, type ReadingPlace } from '@/article/reading-place';
import { plainTextOf } from '@/device/cache/snapshot-cache';
import { recordProgress } from '@/device/store/changes';
import { deviceName } from '@/device/store/device-name';
import type { KeptCopy } from '@/device/store/store';
import { useTimeRead } from './use-time-read';

const TIMERS = {
  after(ms: number, work: () => void) {
    const timer = setTimeout(work, ms);
    return () => clearTimeout(timer);
  },
  nextFrame(work: () => void) {
    const frame = requestAnimationFrame(work);
    return () => cancelAnimationFrame(frame);
  },
};

interface Opened {
  item: Item;
  copy: KeptCopy;
  /** The offset at which the text is opened. */
  start: number;
  /** How much of it is set, from 0 to 1. */
  shown: number;
  /** True while the voice carries the reader. */
  carried: boolean;
  /** Told of the first move in an unread item, and of the place of each. */
  on: { begun(): void; moved(offset: number): void };
}

/** The reader's place in the open article: hears what happens on the screen, and records where the reader stays. */
export function useReadingPlace(
  scroller: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
  { item, copy, start, shown, carried, on }: Opened,
): { place: ReadingPlace; seen: PlaceSeen } {
  const text = plainTextOf(copy);
  const latest = useRef({ item, on });
  useEffect(() => {
    latest.current = { item, on };
  });
  const timeRead = useTimeRead(item.id);
  const place = useMemo(() => {
    const stayed = (offset: number) => {
      const { item: now, on: tell } = latest.current;
      const anchor = anchorAt(text.plain, text.starts, offset);
      if (now.progress.furthest === 0 && anchor.fraction > 0) tell.begun();
      tell.moved(offset);
      void recordProgress(now.id, Math.max(now.progress.furthest, anchor.fraction), anchor);
    };
    return createReadingPlace(
      { length: text.plain.text.length, starts: text.starts },
      start,
      articleSurface(scroller, article),
      TIMERS,
      { stayed, reading: timeRead },
    );
  }, [scroller, article, text, start, timeRead]);
  useLayoutEffect(() => place.set(shown), [place, shown]);
  useEffect(() => place.carry(carried), [place, carried]);
  useEffect(() => listenTo(place, scroller.current, article.current), [place, scroller, article]);
  useOtherDevices(place, item, copy);
  return { place, seen: useSyncExternalStore(place.subscribe, place.seen) };
}

/** Tells the reading place what happens. @returns what ends that */
function listenTo(place: ReadingPlace, view: HTMLElement | null, text: HTMLElement | null) {
  if (!view || !text) return undefined;
  const ends = new AbortController();
  const { signal } = ends;
  const around = view.firstElementChild;
  const settle = new ResizeObserver((changes) => place.layoutChanged(changes.every(({ target }) => target === around)));
  for (const each of [text, view, around]) if (each) settle.observe(each);
  view.addEventListener('scroll', () => place.scrolled(), { passive: true, signal });
  for (const kind of ['wheel', 'touchmove'] as const)
    view.addEventListener(kind, () => place.touched('move'), { passive: true, signal });
  view.addEventListener('pointerdown', () => place.touched('press'), { passive: true, signal });
  const keyed = ({ key }: KeyboardEvent) => {
    if (/^(?:Arrow|Page|Home|End| )/.test(key)) place.touched('move');
  };
  addEventListener('keydown', keyed, { signal });
  const hidden = () => {
    if (document.visibilityState === 'hidden') place.hidden();
  };
  document.addEventListener('visibilitychange', hidden, { signal });
  addEventListener('pagehide', () => place.hidden(), { signal });
  place.opened();
  return () => {
    ends.abort();
    settle.disconnect();
    place.closed();
  };
}

/** Follows a text that is read on on another device while it is open here. */
function useOtherDevices(place: ReadingPlace, item: Item, copy: KeptCopy): void {
  const { position } = item.progress;
  const last = useRef(position?.at ?? '');
  useEffect(() => {
    if (!position || position.at <= last.current) return;
    last.current = position.at;
    if (position.at.endsWith(`-${deviceName}`)) {
      place.movedHere();
      return;
    }
    const { plain, starts } = plainTextOf(copy);
    place.movedElsewhere(findAnchor(plain, starts, position.value));
  }, [place, position, copy]);
}
