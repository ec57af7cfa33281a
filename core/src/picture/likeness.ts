import type { Raster } from './raster';

const ACROSS = 9;
const DOWN = 8;
/** Of 64 bits, so many may differ between a picture and the same one made smaller, written again or a little lighter. */
const SAME_BITS = 6;

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
      if (Math.abs(change) > 2) steps += 1;
      bits = (bits << 1n) | (change > 0 ? 1n : 0n);
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

/** How many of the 64 bits of two pictures differ. */
export function bitsApart(one: string, other: string): number {
  let differing = BigInt(`0x${one}`) ^ BigInt(`0x${other}`);
  let count = 0;
  for (; differing > 0n; differing &= differing - 1n) count += 1;
  return count;
}

/** Whether two pictures are the same to the eye. */
export const looksTheSame = (one: string | null, other: string | null): boolean =>
  one !== null && other !== null && bitsApart(one, other) <= SAME_BITS;
