import { memo, type ReactNode, type RefObject, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { inSight, layWall, type PlacedTile } from './wall-layout';

/** A tile of a wall. */
export interface WallTile {
  key: string;
  className?: string;
  /** How high it is, in points for its width; where that is not exact, so near that what comes later stands near its place. */
  height(width: number): number;
  /** Else its height is known when it has been drawn. */
  isExact?: boolean;
  /** Takes all columns. */
  spans?: boolean;
  draw(): ReactNode;
}

interface Measured {
  width: number;
  columns: number;
  heights: ReadonlyMap<string, number>;
}

/** So far above and below what is seen tiles are drawn too. */
const AHEAD = 900;
/** Scrolling by less than that draws nothing anew. */
const STEP = 240;

interface Wall {
  name: string;
  tiles: readonly WallTile[];
  /** About the width of a column, in points. */
  column: number;
  leastColumns?: number;
  /** Between tiles, in points. */
  gap?: number;
}

/**
 * Tiles in columns that keep their order by rows, each at its own height; only those are drawn that are in sight, or nearly, and
 * the one that has the focus.
 */
export function WindowedWall({ name, tiles, column, leastColumns = 1, gap = 16 }: Wall) {
  const list = useRef<HTMLUListElement>(null);
  const seen = useSeen(list);
  const focused = useFocused(list);
  const { width, columns, heights } = useMeasured(list, { column, leastColumns });
  const across = (width - gap * (columns - 1)) / columns;
  const { placed, height } = useMemo(() => {
    const sizes = tiles.map((tile) => ({
      height: heights.get(tile.key) ?? tile.height(tile.spans ? width : across),
      spans: tile.spans ?? false,
    }));
    return layWall(sizes, { width, columns, gap });
  }, [tiles, heights, width, across, columns, gap]);
  // Without it Tab would begin at the page again, when it has been scrolled away.
  const held = useMemo(() => tiles.findIndex(({ key }) => key === focused), [tiles, focused]);
  const drawn = useMemo(
    () => (width === 0 ? [] : inSight(placed, seen.from - AHEAD, seen.to + AHEAD)),
    [placed, width, seen],
  );

  return (
    <ul className="wall" aria-label={name} ref={list} style={{ height }}>
      {(held < 0 || drawn.includes(held) ? drawn : [...drawn, held].sort((a, b) => a - b)).map((n) => {
        const [tile, place] = [tiles[n], placed[n]];
        return tile && place ? (
          <Tile
            key={tile.key}
            tile={tile}
            place={place}
            nth={n + 1}
            of={tiles.length}
            drawnFor={`${width} ${columns}`}
          />
        ) : null;
      })}
    </ul>
  );
}

interface TileProps {
  tile: WallTile;
  place: PlacedTile;
  nth: number;
  of: number;
  /** The width and the columns of the wall. */
  drawnFor: string;
}

/** One that was there before the wall was scrolled is not drawn again. */
const Tile = memo(function Tile({ tile, place: { left, top, width, height }, nth, of, drawnFor }: TileProps) {
  return (
    <li
      data-key={tile.key}
      data-unsized={tile.isExact ? undefined : drawnFor}
      aria-setsize={of}
      aria-posinset={nth}
      className={tile.className}
      style={{ left, top, width, height: tile.isExact ? height : undefined }}
    >
      {tile.draw()}
    </li>
  );
});

type List = RefObject<HTMLElement | null>;

/** How wide a wall is, with how many columns, and how high those of its tiles are that must be looked at. */
function useMeasured(list: List, { column, leastColumns }: { column: number; leastColumns: number }): Measured {
  const [measured, setMeasured] = useState<Measured>({ width: 0, columns: 1, heights: new Map() });
  useLayoutEffect(() => {
    const wall = list.current;
    return wall ? watched([wall], () => setMeasured((before) => forWidth(before, wall.clientWidth))) : undefined;

    function forWidth(before: Measured, width: number): Measured {
      const columns = Math.max(leastColumns, Math.round(width / column));
      const isSame = before.width === width && before.columns === columns;
      // What is out of sight has no width.
      return isSame || width === 0 ? before : { width, columns, heights: new Map() };
    }
  }, [list, column, leastColumns]);
  // After each drawing: it may have brought others. To look at none costs nothing.
  useLayoutEffect(() => {
    const unsized = [...(list.current?.querySelectorAll<HTMLElement>(':scope > [data-unsized]') ?? [])];
    return watched(unsized, () => setMeasured((before) => withHeights(before, unsized)));
  });
  return measured;
}

/** What of a wall is in sight, in points from its top. */
function useSeen(list: List): { from: number; to: number } {
  const [seen, setSeen] = useState({ from: 0, to: 1200 });
  useEffect(() => {
    const look = () => {
      const wall = list.current;
      const place = wall?.getBoundingClientRect();
      if (!place || place.width === 0) return;
      const from = -place.top;
      setSeen((before) =>
        Math.abs(before.from - from) < STEP && before.to - before.from === innerHeight
          ? before
          : { from, to: from + innerHeight },
      );
    };
    look();
    // Whichever scrolls that it stands in.
    addEventListener('scroll', look, { capture: true, passive: true });
    addEventListener('resize', look);
    return () => {
      removeEventListener('scroll', look, { capture: true });
      removeEventListener('resize', look);
    };
  }, [list]);
  return seen;
}

/** The key of the tile that has the focus, or holds what has it. */
function useFocused(list: List): string | null {
  const [focused, setFocused] = useState<string | null>(null);
  useEffect(() => {
    const wall = list.current;
    const focus = ({ target, type }: FocusEvent) => {
      const tile = target instanceof Element ? target.closest<HTMLElement>('li[data-key]') : null;
      setFocused(type === 'focusin' ? (tile?.dataset.key ?? null) : null);
    };
    wall?.addEventListener('focusin', focus);
    wall?.addEventListener('focusout', focus);
    return () => {
      wall?.removeEventListener('focusin', focus);
      wall?.removeEventListener('focusout', focus);
    };
  }, [list]);
  return focused;
}

/** Looks at elements at once, and whenever one of them has another size: pictures come later, and windows change. */
function watched(elements: readonly Element[], look: () => void): (() => void) | undefined {
  if (elements.length === 0) return undefined;
  look();
  const watch = new ResizeObserver(look);
  for (const each of elements) watch.observe(each);
  return () => watch.disconnect();
}

/** What is known of the tiles after another look; the same object where nothing is new, so that nothing is drawn for it. */
function withHeights(before: Measured, tiles: readonly HTMLElement[]): Measured {
  const found = tiles.flatMap((tile): [string, number][] => {
    const { key, unsized } = tile.dataset;
    const height = tile.offsetHeight;
    // Drawn for another width it tells nothing of this one.
    const isStale = unsized !== `${before.width} ${before.columns}`;
    return key === undefined || isStale || height === 0 || before.heights.get(key) === height ? [] : [[key, height]];
  });
  return found.length === 0 ? before : { ...before, heights: new Map([...before.heights, ...found]) };
}
