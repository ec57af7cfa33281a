import { MAX_PICTURE_COLOURS, type PictureColour } from '../model';
import { colourInWords, colourName } from './colour-names';
import { distance, hexOf, type Lab, oklab } from './colour-space';
import type { Raster } from './raster';

/** Pixels are counted in so many steps of red, green and blue each: what lies in one step looks the same. */
const STEPS = 16;
/** More colours than are told, so that small strong ones are not drawn into large dull ones. */
const CLUSTERS = 9;
const ROUNDS = 12;
/** Two colours nearer than that have one name for most people. */
const ALIKE = 0.085;
/** Less of a picture than this is not seen as a colour of it. */
const SMALLEST_SHARE = 0.012;

interface Cluster {
  at: Lab;
  weight: number;
}

/**
 * The colours of a picture by share: k-means (Lloyd 1982) in OKLab, begun from the most frequent colour and then each time
 * from the one that is farthest from those there are, counted by how often it stands there. The same picture has the same
 * colours each time.
 *
 * @returns five at most, the most frequent first; none for a picture without pixels
 */
export function coloursOf(raster: Raster): PictureColour[] {
  const seen = counted(raster);
  const total = seen.reduce((sum, { weight }) => sum + weight, 0);
  if (total === 0) return [];
  return joined(clustered(seen))
    .map(({ at, weight }) => {
      const hex = hexOf(at);
      return { hex, share: Math.round((1000 * weight) / total) / 1000, name: colourInWords(colourName(hex)) };
    })
    .filter(({ share }, n) => n === 0 || share >= SMALLEST_SHARE)
    .slice(0, MAX_PICTURE_COLOURS);
}

function counted({ data }: Raster): Cluster[] {
  const sums = new Map<number, { n: number; r: number; g: number; b: number }>();
  for (let at = 0; at + 2 < data.length; at += 3) {
    const [r = 0, g = 0, b = 0] = [data[at], data[at + 1], data[at + 2]];
    const key =
      (Math.floor((r * STEPS) / 256) * STEPS + Math.floor((g * STEPS) / 256)) * STEPS + Math.floor((b * STEPS) / 256);
    const sum = sums.get(key) ?? { n: 0, r: 0, g: 0, b: 0 };
    sum.n += 1;
    sum.r += r;
    sum.g += g;
    sum.b += b;
    sums.set(key, sum);
  }
  return [...sums.values()].map(({ n, r, g, b }) => ({ at: oklab(r / n, g / n, b / n), weight: n }));
}

function clustered(seen: readonly Cluster[]): Cluster[] {
  let centres = beginnings(seen);
  for (let round = 0; round < ROUNDS; round++) {
    const next = centres.map(() => ({ l: 0, a: 0, b: 0, weight: 0 }));
    for (const { at, weight } of seen) {
      const mine = next[nearest(at, centres)];
      if (!mine) continue;
      mine.l += at[0] * weight;
      mine.a += at[1] * weight;
      mine.b += at[2] * weight;
      mine.weight += weight;
    }
    centres = next
      .filter(({ weight }) => weight > 0)
      .map(({ l, a, b, weight }) => ({ at: [l / weight, a / weight, b / weight], weight }));
  }
  return centres;
}

function beginnings(seen: readonly Cluster[]): Cluster[] {
  const first = seen.reduce((most, each) => (each.weight > most.weight ? each : most));
  const centres = [first];
  const far = seen.map(({ at }) => distance(at, first.at));
  while (centres.length < CLUSTERS) {
    let best = -1;
    let most = 0;
    seen.forEach(({ weight }, n) => {
      const worth = weight * (far[n] ?? 0) ** 2;
      if (worth > most) [best, most] = [n, worth];
    });
    const found = seen[best];
    if (!found) break;
    centres.push(found);
    seen.forEach(({ at }, n) => (far[n] = Math.min(far[n] ?? 0, distance(at, found.at))));
  }
  return centres;
}

function nearest(at: Lab, centres: readonly Cluster[]): number {
  let best = 0;
  let least = Infinity;
  centres.forEach((centre, n) => {
    const far = distance(at, centre.at);
    if (far < least) [best, least] = [n, far];
  });
  return best;
}

/** Those that look alike made one, the most frequent first. */
function joined(clusters: readonly Cluster[]): Cluster[] {
  const made: Cluster[] = [];
  for (const { at, weight } of [...clusters].sort((a, b) => b.weight - a.weight)) {
    const like = made.find((other) => distance(other.at, at) < ALIKE);
    if (!like) made.push({ at, weight });
    else {
      const all = like.weight + weight;
      like.at = [0, 1, 2].map((n) => ((like.at[n] ?? 0) * like.weight + (at[n] ?? 0) * weight) / all) as unknown as Lab;
      like.weight = all;
    }
  }
  return made.sort((a, b) => b.weight - a.weight);
}
