import type { GreyRaster } from './grey-raster';

const MOST_DEGREES = 8;
const COARSE = 0.5;
const FINE = 0.1;
/** Less than that is not worth turning a picture for. */
const LEAST_DEGREES = 0.25;
/** Lines are told by how much dark rows differ from light ones; turned right, they must do so plainly more. */
const PLAINLY = 1.12;

/**
 * How far the lines of a page lean, by the profile of its rows: at the right angle dark rows of letters and light rows between
 * them differ most (Postl 1986; common practice).
 *
 * @returns degrees clockwise, −8 to 8, by which the page is turned; 0 where no lines are seen
 */
export function skewOf(raster: GreyRaster): number {
  const dark = darkPoints(raster);
  if (dark.length < 200) return 0;
  const at = (degrees: number) => unevenness(dark, raster, degrees);
  let best = 0;
  let most = at(0);
  const straight = most;
  const look = (from: number, to: number, step: number) => {
    for (let degrees = from; degrees <= to + 1e-9; degrees += step) {
      const much = at(degrees);
      if (much > most) [best, most] = [degrees, much];
    }
  };
  look(-MOST_DEGREES, MOST_DEGREES, COARSE);
  look(best - COARSE, best + COARSE, FINE);
  return Math.abs(best) < LEAST_DEGREES || most < PLAINLY * straight ? 0 : Math.round(best * 10) / 10;
}

/** Points darker than what is around them, as places; a shadow over half of a page is not dark so. */
export function darkPoints({ data, width, height }: GreyRaster): number[] {
  const field = Math.max(8, Math.round(width / 24));
  const across = Math.ceil(width / field);
  const sums = new Float64Array(across * Math.ceil(height / field));
  const counts = new Float64Array(sums.length);
  const points: number[] = [];
  // By rows and columns, not by a function for each point: a photograph has millions.
  for (let y = 0, n = 0; y < height; y++) {
    const row = Math.floor(y / field) * across;
    for (let x = 0; x < width; x++, n++) {
      const at = row + Math.floor(x / field);
      sums[at] = (sums[at] ?? 0) + (data[n] ?? 0);
      counts[at] = (counts[at] ?? 0) + 1;
    }
  }
  for (let y = 0, n = 0; y < height; y++) {
    const row = Math.floor(y / field) * across;
    for (let x = 0; x < width; x++, n++) {
      const at = row + Math.floor(x / field);
      if ((data[n] ?? 0) < 0.78 * ((sums[at] ?? 0) / Math.max(1, counts[at] ?? 0))) points.push(n);
    }
  }
  return points;
}

function unevenness(points: readonly number[], { width, height }: GreyRaster, degrees: number): number {
  const slope = Math.tan((degrees * Math.PI) / 180);
  const margin = Math.ceil(width * Math.abs(slope)) + 1;
  const rows = new Float64Array(height + 2 * margin);
  for (const n of points) {
    const [x, y] = [n % width, Math.floor(n / width)];
    const row = Math.round(y - x * slope) + margin;
    rows[row] = (rows[row] ?? 0) + 1;
  }
  let sum = 0;
  for (let n = 1; n < rows.length; n++) sum += ((rows[n] ?? 0) - (rows[n - 1] ?? 0)) ** 2;
  return sum;
}
