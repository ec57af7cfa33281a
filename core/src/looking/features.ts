import { chroma, oklab, type Raster } from '../colour';
import { luma } from './likeness';

/** What is measured in a picture to tell its kind by; all but `colours` and `pixels` are parts of the picture, 0 to 1. */
export interface PictureFeatures {
  /** Pixels that are as good as equal to the next one to the right and below: drawn areas are, what was photographed is not. */
  flat: number;
  /** Pixels that differ a little from the next: shades, grain, soft edges. */
  soft: number;
  /** How many of 512 steps of colour it takes to cover 95 % of the picture. */
  colours: number;
  /** The most frequent colour: a page's paper, a diagram's ground. */
  paper: number;
  /** Of what is an edge, the part that lies in long level or upright ones. */
  straight: number;
  /** How much of the picture's sides its longest level or upright edges take: the frames and bars of a screen do. */
  long: number;
  /** Of what is dark, the part that is thin: drawn lines and letters are, filled shapes are not. */
  thin: number;
  /** Pixels between light and dark without strong colour: a screen's greys, a photograph's shades. */
  middle: number;
  /** The lightness of the most frequent colour, 0 to 1. */
  ground: number;
  /** Edges: pixels that differ much from the next. */
  edges: number;
  /** Pixels of strong colour. */
  strong: number;
  /** Pixels without colour. */
  grey: number;
  /** What is covered by words that were recognised surely. */
  text: number;
  /** How many of those there are. */
  words: number;
}

const SAME = 2;
const MUCH = 36;
/** An edge is long when it goes on for so many pixels. */
const LONG = 14;
/** So many of the longest are looked at. */
const LONGEST = 10;
const STEPS = 8;
const COVERED = 0.95;
const STRONG_CHROMA = 0.11;
const NO_CHROMA = 0.03;
/** Lightness of what is dark, and of what is light, 0 to 255. */
const DARK = 96;
const LIGHT = 232;
/** A line is no wider than that, in pixels. */
const THIN = 5;

/**
 * Measures a picture, in about 400 pixels across, made small by leaving pixels out: a mean of pixels would make shades where
 * there are none.
 *
 * @param text the words recognised in it: how much of it they cover, 0 to 1, and how many they are
 */
export function featuresOf(raster: Raster, text: { covered: number; words: number }): PictureFeatures {
  const { data, width, height } = raster;
  const pixels = Math.max(1, width * height);
  const light = new Float32Array(pixels);
  for (let n = 0; n < pixels; n++) light[n] = luma(data, 3 * n);
  const upright = new Uint8Array(pixels);
  const level = new Uint8Array(pixels);
  let [flat, soft, edges, middle] = [0, 0, 0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const right = x + 1 < width ? Math.abs((light[at + 1] ?? 0) - (light[at] ?? 0)) : 0;
      const below = y + 1 < height ? Math.abs((light[at + width] ?? 0) - (light[at] ?? 0)) : 0;
      const most = Math.max(right, below);
      if (most <= SAME) flat += 1;
      else if (most < MUCH) soft += 1;
      else edges += 1;
      if ((light[at] ?? 0) > DARK && (light[at] ?? 0) < LIGHT) middle += 1;
      if (right >= MUCH) upright[at] = 1;
      if (below >= MUCH) level[at] = 1;
    }
  const { colours, paper, ground } = counted(raster);
  const runs = longRuns(upright, level, width, height);
  const { strong, grey } = saturation(raster);
  return {
    flat: flat / pixels,
    soft: soft / pixels,
    colours,
    paper,
    straight: edges === 0 ? 0 : Math.min(1, runs.inLong / edges),
    long: runs.longest,
    thin: thinness(light, width, height),
    middle: middle / pixels,
    ground,
    edges: edges / pixels,
    strong,
    grey,
    text: text.covered,
    words: text.words,
  };
}

function counted({ data, width, height }: Raster): { colours: number; paper: number; ground: number } {
  const counts = new Uint32Array(STEPS ** 3);
  const step = (at: number) => ((data[at] ?? 0) * STEPS) >> 8;
  for (let at = 0; at + 2 < data.length; at += 3) {
    const key = (step(at) * STEPS + step(at + 1)) * STEPS + step(at + 2);
    counts[key] = (counts[key] ?? 0) + 1;
  }
  const pixels = Math.max(1, width * height);
  const sorted = [...counts].sort((a, b) => b - a);
  let [covered, colours] = [0, 0];
  while (covered < COVERED * pixels && colours < sorted.length) covered += sorted[colours++] ?? 0;
  const most = counts.indexOf(sorted[0] ?? 0);
  const part = (n: number) => ((Math.floor(most / STEPS ** n) % STEPS) + 0.5) / STEPS;
  return { colours, paper: (sorted[0] ?? 0) / pixels, ground: 0.299 * part(2) + 0.587 * part(1) + 0.114 * part(0) };
}

/** Every eleventh pixel is enough for a share. */
const EVERY = 11;

function saturation({ data }: Raster): { strong: number; grey: number } {
  let [strong, grey, all] = [0, 0, 0];
  for (let at = 0; at + 2 < data.length; at += 3 * EVERY) {
    const colour = chroma(oklab(data[at] ?? 0, data[at + 1] ?? 0, data[at + 2] ?? 0));
    all += 1;
    if (colour > STRONG_CHROMA) strong += 1;
    if (colour < NO_CHROMA) grey += 1;
  }
  return { strong: strong / Math.max(1, all), grey: grey / Math.max(1, all) };
}

/** Of what is dark, the part that has light within a line's width both ways, level or upright. */
function thinness(light: Float32Array, width: number, height: number): number {
  const isDark = (n: number) => (light[n] ?? 255) < DARK;
  let [thin, dark] = [0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      if (!isDark(at)) continue;
      dark += 1;
      const across = spanOf(at, 1, x, width - 1 - x);
      if (across <= THIN || spanOf(at, width, y, height - 1 - y) <= THIN) thin += 1;
    }
  return dark === 0 ? 0 : thin / dark;

  function spanOf(at: number, step: number, before: number, after: number): number {
    let span = 1;
    for (let n = 1; n <= Math.min(before, THIN) && isDark(at - n * step); n++) span += 1;
    for (let n = 1; n <= Math.min(after, THIN) && isDark(at + n * step); n++) span += 1;
    return span;
  }
}

/** How many pixels of edges lie in long ones, and how much of the sides the ten longest take. */
function longRuns(
  upright: Uint8Array,
  level: Uint8Array,
  width: number,
  height: number,
): { inLong: number; longest: number } {
  const inRun = new Uint8Array(width * height);
  const lengths: number[] = [];
  const mark = (from: number, step: number, length: number) => {
    for (let n = 0; n < length; n++) inRun[from + n * step] = 1;
  };
  const look = (edge: Uint8Array, start: number, step: number, count: number) => {
    let run = 0;
    for (let n = 0; n <= count; n++) {
      const at = start + n * step;
      if (n < count && edge[at]) run += 1;
      else {
        if (run >= LONG) {
          mark(at - run * step, step, run);
          lengths.push(run / count);
        }
        run = 0;
      }
    }
  };
  for (let x = 0; x < width; x++) look(upright, x, width, height);
  for (let y = 0; y < height; y++) look(level, y * width, 1, width);
  const longest = lengths.sort((a, b) => b - a).slice(0, LONGEST);
  return {
    inLong: inRun.reduce((sum, each) => sum + each, 0),
    longest: longest.reduce((sum, each) => sum + each, 0) / LONGEST,
  };
}
