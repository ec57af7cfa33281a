import { type RefObject, useEffect, useState } from 'react';
import { textOfRange } from '@/article/text-geometry';

/** A part of a text, by its offsets. */
export interface SelectedText {
  start: number;
  end: number;
}

/** Without the space at its edges. @returns null when nothing is left */
export function withoutEdges(text: string, { start, end }: SelectedText): SelectedText | null {
  const words = text.slice(start, end);
  const from = start + (words.length - words.trimStart().length);
  const to = end - (words.length - words.trimEnd().length);
  return to > from ? { start: from, end: to } : null;
}

/** What of the article is selected, by pointer, touch or keyboard; null when nothing is. */
export function useSelectedText(article: RefObject<HTMLElement | null>, text: string): SelectedText | null {
  const [selected, setSelected] = useState<SelectedText | null>(null);
  useEffect(() => {
    const look = () => {
      const selection = getSelection();
      const element = article.current;
      const range = selection && selection.rangeCount > 0 ? selection.getRangeAt(0) : null;
      const part =
        element && range && !range.collapsed && range.intersectsNode(element) ? textOfRange(element, range) : null;
      setSelected(part && withoutEdges(text, part));
    };
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, [article, text]);
  return selected;
}
