import { useLayoutEffect, useRef } from 'react';
import type { CellRendererProps, LayoutChangeEvent } from 'react-native';

const told = new WeakMap<Element, (event: LayoutChangeEvent) => void>();
/** One for all cells: where several change, the page is measured once. */
const watch =
  typeof ResizeObserver === 'undefined'
    ? null
    : new ResizeObserver((changed) => {
        for (const { target } of changed) {
          if (!(target instanceof HTMLElement) || target.offsetParent === null) continue;
          const { offsetLeft: x, offsetTop: y, offsetWidth: width, offsetHeight: height } = target;
          // Of an event lists read no more than that.
          told.get(target)?.({ nativeEvent: { layout: { x, y, width, height } } } as LayoutChangeEvent);
        }
      });

/**
 * A cell of a long list, as an element of the page: the one that lists bring along is drawn anew, cell by cell, whenever one comes
 * or goes.
 */
export function ListCell({
  children,
  onLayout,
  onFocusCapture,
}: Pick<CellRendererProps<unknown>, 'children' | 'onLayout' | 'onFocusCapture'>) {
  const cell = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    const element = cell.current;
    if (!element || !watch || !onLayout) return undefined;
    told.set(element, onLayout);
    watch.observe(element);
    return () => watch.unobserve(element);
  }, [onLayout]);
  return (
    <div ref={cell} onFocusCapture={onFocusCapture as (event: object) => void}>
      {children}
    </div>
  );
}
