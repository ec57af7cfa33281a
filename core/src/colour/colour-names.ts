import { colorsNamed } from 'culori/fn';
import type { PictureColour } from '../model';
import { chroma, distance, type Lab, labOf } from './colour-space';

/** The eleven basic colour terms (Berlin and Kay, Basic Color Terms, 1969). */
export const COLOUR_TERMS = [
  'black',
  'white',
  'grey',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'purple',
  'pink',
  'brown',
] as const;
export type ColourTerm = (typeof COLOUR_TERMS)[number];
export type Shade = 'light' | 'dark' | null;

export interface ColourName {
  term: ColourTerm;
  shade: Shade;
}

/** From here on a colour is not grey: what is very light or very dark needs more of it to be seen. */
const colourBegins = (lightness: number) => (lightness > 0.93 ? 0.03 : lightness < 0.25 ? 0.045 : 0.032);

/**
 * The plain name of a colour: a basic colour term, light or dark where it is far from what the term is used for first. The
 * bounds in lightness, chroma and hue of OKLCh are ours, held against the keywords of CSS Color 4 that have a basic term in
 * them.
 */
export function colourName(hex: string): ColourName {
  const lab = labOf(hex);
  const [lightness, a, b] = lab;
  if (lightness < 0.19) return { term: 'black', shade: null };
  const strength = chroma(lab);
  if (strength < colourBegins(lightness)) return greyName(lightness);
  const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
  const term = termOf(lightness, strength, hue);
  return { term, shade: shadeOf(term, lightness) };
}

function greyName(lightness: number): ColourName {
  if (lightness > 0.945) return { term: 'white', shade: null };
  if (lightness < 0.27) return { term: 'black', shade: null };
  return { term: 'grey', shade: lightness > 0.8 ? 'light' : lightness < 0.48 ? 'dark' : null };
}

function termOf(lightness: number, strength: number, hue: number): ColourTerm {
  if (hue >= 345 || hue < 42) return reddish(lightness, strength, hue);
  if (hue < 82) {
    if (lightness >= 0.655 && strength >= 0.1) return 'orange';
    return lightness > 0.88 ? 'yellow' : 'brown';
  }
  if (hue < 118) {
    if (lightness >= 0.74) return 'yellow';
    return hue < 100 ? 'brown' : 'green';
  }
  // What is deep between green and blue is called green more often, what is bright blue.
  if (hue < (lightness < 0.62 ? 198 : 186)) return 'green';
  if (hue < 282) return 'blue';
  if (hue < 330) return 'purple';
  return lightness > 0.62 ? 'pink' : 'purple';
}

function reddish(lightness: number, strength: number, hue: number): ColourTerm {
  if (hue >= 345 || hue < 15) return lightness > 0.6 ? 'pink' : hue >= 345 ? 'purple' : 'red';
  if (lightness > 0.71) return hue < 34 ? 'pink' : 'orange';
  if (hue > 36 && strength > 0.19 && lightness > 0.62) return 'orange';
  return strength < 0.1 || (hue > 30 && strength < 0.14) ? 'brown' : 'red';
}

/** Lightness from which on a term is called light, and below which it is called dark. */
const SHADES: Partial<Record<ColourTerm, readonly [light: number, dark: number]>> = {
  red: [2, 0.46],
  orange: [0.86, 0.64],
  yellow: [0.973, 0.76],
  green: [0.82, 0.46],
  blue: [0.77, 0.37],
  purple: [0.78, 0.38],
  pink: [0.87, 0.6],
  brown: [0.66, 0.4],
};

function shadeOf(term: ColourTerm, lightness: number): Shade {
  const [light, dark] = SHADES[term] ?? [2, -1];
  return lightness > light ? 'light' : lightness < dark ? 'dark' : null;
}

/** As it is said: `dark green`. */
export const colourInWords = ({ term, shade }: ColourName): string => (shade === null ? term : `${shade} ${term}`);

/** What is asked for by `colour:`: a name, or a colour itself. */
export type WantedColour = { name: ColourName } | { lab: Lab };

/** So near a colour must be to one that was asked for. */
const NEAR = 0.12;
/** So much of a picture must have it. */
const ENOUGH = 0.03;
const HEX = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/;

/**
 * Reads what a reader wrote as a colour: a basic term, with *light* or *dark* before it; a colour keyword of CSS (CSS Color 4,
 * 6.1); or red, green and blue in hexadecimal.
 *
 * @returns null when it is none of these
 */
export function readColour(written: string): WantedColour | null {
  const plain = written
    .toLowerCase()
    .replace(/[\s_-]+/g, '')
    .replace('gray', 'grey');
  const [, shade, word = plain] = /^(light|dark)(.+)$/.exec(plain) ?? [];
  const term = COLOUR_TERMS.find((each) => each === word);
  if (term) return { name: { term, shade: (shade as Shade | undefined) ?? null } };
  const keyword = (colorsNamed as Record<string, number | undefined>)[plain];
  if (keyword !== undefined) return { lab: labOf(`#${keyword.toString(16).padStart(6, '0')}`) };
  const digits = HEX.exec(plain)?.[1];
  if (digits === undefined) return null;
  return { lab: labOf(`#${digits.length === 3 ? digits.replace(/./g, '$&$&') : digits}`) };
}

/** Whether a picture has enough of a colour. A term without a shade is meant in all of them. */
export function hasColour(colours: readonly PictureColour[], wanted: WantedColour): boolean {
  return colours.some(({ hex, share, name }) => {
    if (share < ENOUGH) return false;
    if ('lab' in wanted) return distance(labOf(hex), wanted.lab) < NEAR;
    return name === colourInWords(wanted.name) || (wanted.name.shade === null && name.endsWith(` ${wanted.name.term}`));
  });
}
