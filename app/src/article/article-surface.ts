import type { RefObject } from 'react';
import type { Surface } from './reading-place';
import { offsetAtHeight, topOfOffset } from './text-geometry';

/** An article in the element that scrolls it, as the reading place sees it. */
export function articleSurface(
  scroller: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
): Surface {
  const both = () => {
    const [view, text] = [scroller.current, article.current];
    return view && text ? { view, text } : null;
  };
  /** How far below the top of the scrolled content the article begins. */
  const top = ({ view, text }: { view: HTMLElement; text: HTMLElement }) =>
    text.getBoundingClientRect().top - view.getBoundingClientRect().top + view.scrollTop;
  return {
    viewport() {
      const here = both();
      if (!here) return null;
      const { scrollTop, clientHeight: height, scrollHeight } = here.view;
      return { scrollTop, height, scrollHeight };
    },
    scrollTo(to) {
      const here = both();
      if (here) here.view.scrollTop = to;
    },
    topOf(offset) {
      const here = both();
      return here ? topOfOffset(here.text, offset, here.text) + top(here) : 0;
    },
    offsetAt(height) {
      const here = both();
      return here ? offsetAtHeight(here.text, height - top(here), here.text) : 0;
    },
    textHeight: () => article.current?.offsetHeight ?? 0,
  };
}
