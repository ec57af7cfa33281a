import type { Raster } from '../colour';

const ACROSS = 9;
const DOWN = 8;
/** In even areas noise would decide. */
const STEP = 3;

/**
 * The difference hash of a picture: for each of 8 × 8 places whether it is lighter than its right neighbour, after the picture
 * was made 9 × 8 pixels small. Common practice; there is no standard of it.
 *
 * @returns 64 bits in hexadecimal; null for a picture all of one shade, which looks like any other such
 */
export function likenessOf(raster: Raster): string | null {
  const grey = small(raster);
  let bits = 0n;
  let steps = 0;
  for (let y = 0; y < DOWN; y++)
    for (let x = 0; x + 1 < ACROSS; x++) {
      const change = (grey[y * ACROSS + x + 1] ?? 0) - (grey[y * ACROSS + x] ?? 0);
      if (Math.abs(change) > STEP) steps += 1;
      bits = (bits << 1n) | (change > STEP ? 1n : 0n);
    }
  return steps < 4 ? null : bits.toString(16).padStart(16, '0');
}

/** Means of lightness over 9 × 8 fields. */
function small({ data, width, height }: Raster): number[] {
  const sums = new Array<number>(ACROSS * DOWN).fill(0);
  const counts = new Array<number>(ACROSS * DOWN).fill(0);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const field = Math.floor((y * DOWN) / height) * ACROSS + Math.floor((x * ACROSS) / width);
      const at = 3 * (y * width + x);
      sums[field] = (sums[field] ?? 0) + luma(data, at);
      counts[field] = (counts[field] ?? 0) + 1;
    }
  return sums.map((sum, n) => sum / Math.max(1, counts[n] ?? 0));
}

/** Lightness of a pixel, 0 to 255 (ITU-R BT.601). */
export const luma = (data: Uint8Array, at: number): number =>
  0.299 * (data[at] ?? 0) + 0.587 * (data[at + 1] ?? 0) + 0.114 * (data[at + 2] ?? 0);
