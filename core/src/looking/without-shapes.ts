import type { GreyRaster } from './grey-raster';
import { darkPoints } from './skew';

/** What is connected over so much of the picture's longer side is no letter: a frame, an axis, a line between two shapes. */
const LARGE = 0.11;
/** Letters are painted with soft edges: so far around a shape its edge goes with it, in pixels. */
const EDGE = 2;
const PAPER = 255;
/** What has fewer points, or is shorter, is a speck. In pixels. */
const SPECK = { points: 12, side: 8 } as const;

/** A picture without its shapes. */
export interface WithoutShapes {
  /** Its lightness with the shapes painted over, of the same size. */
  painted: Uint8Array;
  /** What may be letters by its size, alone on paper. */
  letters: Uint8Array;
  /** How many pieces may be letters: more than a sheet has is a texture. */
  pieces: number;
}

/**
 * A picture without the shapes in it, so that the words which stand in them are read: recognition takes letters inside an outline
 * for its holes. What is dark and connected (in all eight directions) and large is painted over.
 */
export function withoutShapes({ data, width, height }: GreyRaster): WithoutShapes {
  const isDark = new Uint8Array(width * height);
  for (const n of darkPoints({ data, width, height })) isDark[n] = 1;
  const large = LARGE * Math.max(width, height);
  const painted = Uint8Array.from(data);
  const letters = new Uint8Array(data.length).fill(PAPER);
  const waiting = new Int32Array(width * height);
  let pieces = 0;
  for (let start = 0; start < isDark.length; start++) {
    if (isDark[start] !== 1) continue;
    const count = connected(start);
    const long = sideOf(count);
    if (long > large) around(count, EDGE, (n) => isDark[n] !== 1 && (painted[n] = PAPER));
    else if (count >= SPECK.points && long >= SPECK.side) {
      pieces++;
      around(count, 1, (n) => (letters[n] = data[n] ?? PAPER));
    }
  }
  return { painted, letters, pieces };

  /** Gathers what is connected with a point into `waiting`, and takes it out of what is dark. @returns how many points */
  function connected(start: number): number {
    let [seen, count] = [0, 1];
    waiting[0] = start;
    isDark[start] = 2;
    while (seen < count) {
      const at = waiting[seen++] ?? 0;
      const x = at % width;
      for (let dy = -width; dy <= width; dy += width)
        for (let dx = x > 0 ? -1 : 0; dx <= (x < width - 1 ? 1 : 0); dx++) {
          const next = at + dy + dx;
          if (isDark[next] !== 1) continue;
          isDark[next] = 2;
          waiting[count++] = next;
        }
    }
    return count;
  }

  /** The longer side of what was gathered, in pixels. */
  function sideOf(count: number): number {
    let [left, right, top, bottom] = [width, 0, height, 0];
    for (let n = 0; n < count; n++) {
      const [x, y] = [(waiting[n] ?? 0) % width, Math.floor((waiting[n] ?? 0) / width)];
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
    return Math.max(right - left, bottom - top);
  }

  /** Does something with each point of what was gathered, and with those so near to one. */
  function around(count: number, near: number, act: (n: number) => void): void {
    for (let n = 0; n < count; n++) {
      const [x, y] = [(waiting[n] ?? 0) % width, Math.floor((waiting[n] ?? 0) / width)];
      for (let py = Math.max(0, y - near); py <= Math.min(height - 1, y + near); py++)
        for (let px = Math.max(0, x - near); px <= Math.min(width - 1, x + near); px++) act(py * width + px);
    }
  }
}
