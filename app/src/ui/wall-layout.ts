/** A tile of a wall: how high it is for its width, in points. */
export interface TileSize {
  height: number;
  /** Takes all columns: what comes later stands below it. */
  spans?: boolean;
}

export interface PlacedTile {
  left: number;
  top: number;
  width: number;
  height: number;
}

/**
 * Lays tiles out in columns, each as high as it is. Each comes into the column that is shortest so far, of several the first: so
 * rows keep the order, from left to right and down, and no tile stands below one that comes later by more than its own height.
 *
 * @param width of all, in points
 */
export function layWall(
  tiles: readonly TileSize[],
  { width, columns, gap }: { width: number; columns: number; gap: number },
): { placed: PlacedTile[]; height: number } {
  const across = Math.max(1, (width - gap * (columns - 1)) / columns);
  const ends = new Array<number>(columns).fill(0);
  const placed = tiles.map(({ height, spans }) => {
    if (spans) {
      const top = Math.max(...ends);
      ends.fill(top + height + gap);
      return { left: 0, top, width, height };
    }
    const column = ends.indexOf(Math.min(...ends));
    const top = ends[column] ?? 0;
    ends[column] = top + height + gap;
    return { left: column * (across + gap), top, width: across, height };
  });
  return { placed, height: Math.max(0, ...ends) };
}

/** Places of the tiles that are in sight, or nearly. */
export function inSight(placed: readonly PlacedTile[], from: number, to: number): number[] {
  const seen: number[] = [];
  placed.forEach(({ top, height }, n) => {
    if (top + height >= from && top <= to) seen.push(n);
  });
  return seen;
}
