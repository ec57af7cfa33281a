import type { Place } from '../model';

/** Mean radius of the Earth, in metres (IUGG; Moritz 2000, "Geodetic Reference System 1980": R1). */
const EARTH = 6_371_008.8;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

type Point = Pick<Place, 'latitude' | 'longitude'>;

/** How far two points are apart on a sphere, in metres (haversine formula; Sinnott 1984, "Virtues of the Haversine"). */
export function metresApart(a: Point, b: Point): number {
  const half = (from: number, to: number) => Math.sin(radians(to - from) / 2) ** 2;
  const chord =
    half(a.latitude, b.latitude) +
    Math.cos(radians(a.latitude)) * Math.cos(radians(b.latitude)) * half(a.longitude, b.longitude);
  return 2 * EARTH * Math.asin(Math.min(1, Math.sqrt(chord)));
}

/** A place that is asked for: all that lies within so many metres of a point. */
export interface Around extends Point {
  metres: number;
}

/** Near, where nothing else is said. */
const NEAR = 1000;

/**
 * Reads a place as it is asked for: `58.981,-2.96`, with how far around it where that is said: `58.981,-2.96,5km`, `58.981,-2.96,300m`.
 * A `geo:` URI in front is taken (RFC 5870).
 *
 * @returns null for what names no place
 */
export function readPlace(written: string): Around | null {
  const parts = /^(?:geo:)?(-?\d{1,2}(?:\.\d+)?),(-?\d{1,3}(?:\.\d+)?)(?:,(\d+(?:\.\d+)?)(km|m))?$/i.exec(
    written.replace(/\s+/g, ''),
  );
  if (!parts) return null;
  const [latitude, longitude] = [Number(parts[1]), Number(parts[2])];
  if (Math.abs(latitude) > 90 || Math.abs(longitude) > 180) return null;
  const metres = parts[3] === undefined ? NEAR : Number(parts[3]) * (parts[4]?.toLowerCase() === 'km' ? 1000 : 1);
  return { latitude, longitude, metres };
}

/** Whether something may lie there: a place that is known badly is given the benefit of it. */
export const liesAround = (place: Place, around: Around): boolean =>
  metresApart(place, around) <= around.metres + place.within;

/** A place as it is asked for; see readPlace. To four places of decimals, which is some ten metres. */
export const placeAsked = ({ latitude, longitude }: Point): string =>
  [latitude, longitude].map((degrees) => Number(degrees.toFixed(4))).join(',');

/** A place for the reader: 58.9810° N, 2.9600° W. */
export const placeInWords = ({ latitude, longitude }: Point): string =>
  `${Math.abs(latitude).toFixed(4)}° ${latitude < 0 ? 'S' : 'N'}, ${Math.abs(longitude).toFixed(4)}° ${longitude < 0 ? 'W' : 'E'}`;
