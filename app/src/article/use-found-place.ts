import { type RefObject, useEffect } from 'react';
import { z } from 'zod';
import type { ReadingPlace } from './reading-place';
import { rangeOfText } from './text-geometry';

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
 *
 * @param instead where to open the text for what was found, where that is somewhere else: at the picture that it stands in
 */
export function useFoundPlace(
  place: ReadingPlace,
  article: RefObject<HTMLElement | null>,
  at: string | undefined,
  instead?: (offset: number) => number,
): void {
  useEffect(() => {
    const text = article.current;
    const places = readPlaces(at);
    const first = places[0];
    if (!text || !first) return undefined;
    const ranges = places.flatMap(({ start, end }) => rangeOfText(text, start, end) ?? []);
    if ('highlights' in CSS) CSS.highlights.set('found', new Highlight(...ranges));
    // Fonts and pictures move what is below them until they are there; it is brought again until the reader's first move.
    place.showFound(instead?.(first.start) ?? first.start);
    return () => {
      place.foundIsDone();
      if ('highlights' in CSS) CSS.highlights.delete('found');
    };
  }, [place, article, at]); // eslint-disable-line react-hooks/exhaustive-deps -- where it was found is what matters
}
