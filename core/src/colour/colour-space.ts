import { converter, modeOklab, modeRgb, type Oklab, useMode } from 'culori/fn';

useMode(modeRgb);
useMode(modeOklab);
const toOklab = converter('oklab');
const toRgb = converter('rgb');

/** A colour in OKLab (Ottosson 2020): equal distances look about equally far apart. Lightness is 0 to 1. */
export type Lab = readonly [l: number, a: number, b: number];

/** A colour of sRGB in OKLab. @param r with g and b 0 to 255 */
export function oklab(r: number, g: number, b: number): Lab {
  const { l, a, b: yellow } = toOklab({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
  return [l, a, yellow];
}

/** As `#rrggbb`, the nearest that sRGB has. */
export function hexOf([l, a, b]: Lab): string {
  const colour = toRgb({ mode: 'oklab', l, a, b } satisfies Oklab);
  return `#${[colour.r, colour.g, colour.b]
    .map((part) =>
      Math.round(255 * Math.min(1, Math.max(0, part)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

/** @param hex `#rrggbb` */
export function labOf(hex: string): Lab {
  const all = Number.parseInt(hex.slice(1), 16);
  return oklab(all >> 16, (all >> 8) & 255, all & 255);
}

/** How far apart two colours look: 0 the same, 1 as far as black and white. */
export const distance = (one: Lab, other: Lab): number =>
  Math.hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2]);

/** How far a colour is from grey, 0 to about 0.37. */
export const chroma = ([, a, b]: Lab): number => Math.hypot(a, b);
