import { type ReactNode, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { inSight, layWall } from './wall-layout';

/** A tile whose height is known when it has been drawn. */
export interface WallTile {
  key: string;
  content: ReactNode;
  className: string;
  /** How high it may be, in points for a width: right enough that what comes later stands near its place. */
  guess(width: number): number;
  /** Takes all columns. */
  spans?: boolean;
}

interface Measured {
  width: number;
  columns: number;
  heights: ReadonlyMap<string, number>;
}

const GAP = 16;
/** So far above and below what is seen tiles are drawn too. */
const AHEAD = 900;
/** Scrolling by less than that draws nothing anew. */
const STEP = 240;

/**
 * Tiles in columns that keep their order by rows, each as high as what stands in it turns out to be; only those are drawn that are in
 * sight, or nearly.
 *
 * @param column about the width of a column, in points
 */
export function WindowedWall({ name, tiles, column }: { name: string; tiles: readonly WallTile[]; column: number }) {
  const list = useRef<HTMLUListElement>(null);
  const [seen, setSeen] = useState({ from: 0, to: 1200 });
  const [measured, setMeasured] = useState<Measured>({ width: 0, columns: 1, heights: new Map() });
  const { width, heights } = measured;
  const columns = columnsIn(width, column);
  const across = (width - GAP * (columns - 1)) / columns;
  const { placed, height } = useMemo(() => {
    const sizes = tiles.map(({ key, guess, spans = false }) => ({
      proportion: 0,
      below: heights.get(key) ?? guess(spans ? width : across),
      spans,
    }));
    return layWall(sizes, { width, columns, gap: GAP });
  }, [tiles, heights, width, across, columns]);

  useLayoutEffect(() => {
    const wall = list.current;
    if (!wall) return undefined;
    const drawn = [...wall.children].filter((each): each is HTMLElement => each instanceof HTMLElement);
    const look = () => setMeasured((before) => remeasured(before, wall.clientWidth, column, drawn));
    look();
    // Pictures come later, and windows change.
    const watch = new ResizeObserver(look);
    for (const each of [wall, ...drawn]) watch.observe(each);
    return () => watch.disconnect();
  });

  useEffect(() => {
    const look = () => {
      const wall = list.current;
      if (!wall || wall.clientWidth === 0) return;
      const from = -wall.getBoundingClientRect().top;
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
  }, []);

  return (
    <ul className="wall" aria-label={name} ref={list} style={{ height }}>
      {(width === 0 ? [] : inSight(placed, seen.from - AHEAD, seen.to + AHEAD)).map((n) => {
        const [tile, place] = [tiles[n], placed[n]];
        return tile && place ? (
          <li
            key={tile.key}
            data-key={tile.key}
            aria-setsize={tiles.length}
            aria-posinset={n + 1}
            className={tile.className}
            style={{ left: place.left, top: place.top, width: place.width }}
          >
            {tile.content}
          </li>
        ) : null;
      })}
    </ul>
  );
}

function columnsIn(width: number, column: number): number {
  return Math.max(1, Math.round(width / column));
}

/** What is known of the tiles after another look; the same object where nothing is new, so that nothing is drawn for it. */
function remeasured(before: Measured, width: number, column: number, drawn: readonly HTMLElement[]): Measured {
  // What is out of sight has no width.
  if (width === 0) return before;
  const columns = columnsIn(width, column);
  const isSame = before.width === width && before.columns === columns;
  // Tiles that are drawn for another width tell nothing of this one: they are looked at when they have it.
  const known = isSame ? before.heights : new Map<string, number>();
  const found = isSame
    ? drawn.flatMap((tile): [string, number][] => {
        const { key } = tile.dataset;
        return key !== undefined && known.get(key) !== tile.offsetHeight ? [[key, tile.offsetHeight]] : [];
      })
    : [];
  return isSame && found.length === 0 ? before : { width, columns, heights: new Map([...known, ...found]) };
}
