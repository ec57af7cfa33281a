import type { GreyRaster } from './grey-raster';
import { darkPoints } from './skew';

/** What is connected over so much of the picture's longer side is no letter: a frame, an axis, a line between two shapes. */
const LARGE = 0.11;
/** Letters are painted with soft edges: so far around a shape its edge goes with it, in pixels. */
const EDGE = 2;
const PAPER = 255;

/**
 * A picture without the shapes in it, so that the words which stand in them are read: recognition takes letters inside an outline
 * for its holes. What is dark and connected (in all eight directions) and large is painted over.
 *
 * @returns lightness, of the same size
 */
export function withoutShapes({ data, width, height }: GreyRaster): Uint8Array {
  const isDark = new Uint8Array(width * height);
  for (const n of darkPoints({ data, width, height })) isDark[n] = 1;
  const large = LARGE * Math.max(width, height);
  const painted = Uint8Array.from(data);
  const waiting = new Int32Array(width * height);
  for (let start = 0; start < isDark.length; start++) {
    if (isDark[start] !== 1) continue;
    const count = connected(start);
    if (isLarge(count)) for (let n = 0; n < count; n++) paint(waiting[n] ?? 0);
  }
  return painted;

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

  function isLarge(count: number): boolean {
    let [left, right, top, bottom] = [width, 0, height, 0];
    for (let n = 0; n < count; n++) {
      const [x, y] = [(waiting[n] ?? 0) % width, Math.floor((waiting[n] ?? 0) / width)];
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
    return Math.max(right - left, bottom - top) > large;
  }

  function paint(at: number): void {
    const [x, y] = [at % width, Math.floor(at / width)];
    for (let py = Math.max(0, y - EDGE); py <= Math.min(height - 1, y + EDGE); py++)
      for (let px = Math.max(0, x - EDGE); px <= Math.min(width - 1, x + EDGE); px++)
        if (isDark[py * width + px] !== 1) painted[py * width + px] = PAPER;
  }
}
