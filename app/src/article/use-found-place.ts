import { type RefObject, useEffect } from 'react';
import { z } from 'zod';
import { rangeOfText, topOfOffset } from './text-geometry';

/** How far below the top what was found is brought. */
const BROUGHT_TO = 0.25;

const Places = z
  .string()
  .max(400)
  .regex(/^\d{1,8}-\d{1,8}(?:\.\d{1,8}-\d{1,8})*$/)
  .transform((written) =>
    written.split('.').map((part) => {
      const [start = 0, end = 0] = part.split('-').map(Number);
      return { start, end };
    }),
  );

/** "120-128.140-151": parts of a text by their offsets; none when it is not written so. */
export function readPlaces(written: string | undefined): readonly { start: number; end: number }[] {
  const parsed = Places.safeParse(written);
  return parsed.success ? parsed.data.filter(({ start, end }) => end > start) : [];
}

/**
 * Opens a text at what was found in it, and marks that. It is a look aside: where the reader stopped stays recorded
 * until they move on from here.
 */
export function useFoundPlace(
  scroller: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
  at: string | undefined,
): void {
  useEffect(() => {
    const view = scroller.current;
    const text = article.current;
    const places = readPlaces(at);
    const first = places[0];
    if (!view || !text || !first) return undefined;
    const ranges = places.flatMap(({ start, end }) => rangeOfText(text, start, end) ?? []);
    if ('highlights' in CSS) CSS.highlights.set('found', new Highlight(...ranges));
    const bring = () => {
      view.dataset.aside = 'found';
      view.scrollTop = topOfOffset(text, first.start, view) + view.scrollTop - BROUGHT_TO * view.clientHeight;
    };
    bring();
    // Fonts and pictures move what is below them until they are there; the reader's first move ends that.
    const settle = new ResizeObserver(() => {
      if (view.dataset.aside === 'found') bring();
    });
    settle.observe(text);
    return () => {
      settle.disconnect();
      delete view.dataset.aside;
      if ('highlights' in CSS) CSS.highlights.delete('found');
    };
  }, [scroller, article, at]);
}
