import { placePassage } from '@dorvel/core/highlight';
import { type Highlight as Mark, HighlightKind } from '@dorvel/core/model';
import { type RefObject, useEffect, useMemo } from 'react';
import type { PlacedHighlight } from '@/article/at-highlight';
import { rangeOfText } from '@/article/text-geometry';

/** Places of highlights in a text, in the order of the text; those that have lost theirs come last. */
export function placeHighlights(text: string, marks: readonly Mark[]): PlacedHighlight[] {
  const end = text.length;
  return marks
    .map((mark) => ({ mark, placed: placePassage(text, mark.choices.passage.value) }))
    .sort((a, b) => (a.placed?.start ?? end) - (b.placed?.start ?? end) || a.mark.madeAt - b.mark.madeAt);
}

/**
 * Shows what is marked in the text, each kind in its own way (CSS Custom Highlight API).
 *
 * @param shown how much of the text is set, since what comes later is to show it too
 */
export function useHighlightsInText(
  article: RefObject<HTMLElement | null>,
  text: string,
  marks: readonly Mark[],
  shown: number,
): readonly PlacedHighlight[] {
  const placed = useMemo(() => placeHighlights(text, marks), [text, marks]);
  useEffect(() => {
    const element = article.current;
    if (!element || !('highlights' in CSS)) return undefined;
    for (const kind of HighlightKind.options) {
      const ranges = placed.flatMap(({ mark, placed: at }) =>
        at && mark.choices.kind.value === kind ? (rangeOfText(element, at.start, at.end) ?? []) : [],
      );
      if (ranges.length > 0) CSS.highlights.set(`mark-${kind}`, new Highlight(...ranges));
      else CSS.highlights.delete(`mark-${kind}`);
    }
    return () => {
      for (const kind of HighlightKind.options) CSS.highlights.delete(`mark-${kind}`);
    };
  }, [article, placed, shown]);
  return placed;
}
