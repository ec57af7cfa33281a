import { spansWithin, type Carrier, type Item, type Spans } from '../model';

/** Minutes of an item that are still to be read, from the loose end on. */
export function minutesLeft(item: Item): number {
  const minutes = item.capture.page?.minutes ?? 0;
  return item.choices.finishedAt.value !== null ? 0 : minutes * (1 - goOnFrom(item));
}

/** The fraction at which the reader goes on: where they stopped last, even when they have been further. */
export function goOnFrom(item: Item): number {
  return item.progress.position?.value.fraction ?? 0;
}

/** The fraction that is passed: all of what is finished. */
export function passedOf(item: Item): number {
  return item.choices.finishedAt.value !== null ? 1 : item.progress.furthest;
}

/** Minutes in words, never "0 min" for something that takes time. */
export function inMinutes(minutes: number): string {
  return `${Math.max(1, Math.round(minutes))} min`;
}

/** A length of time in words: "48 min", "2 h 5 min". */
export function inHours(minutes: number): string {
  const whole = Math.round(minutes);
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${whole % 60} min`;
}

/** The strand's text equivalent: "12 min", "12 min, 7 left", "12 min, finished". */
export function lengthInWords(item: Item): string {
  const page = item.capture.page;
  if (!page) return 'length not known yet';
  const whole = inMinutes(page.minutes);
  if (item.choices.finishedAt.value !== null) return `${whole}, finished`;
  if (item.progress.furthest === 0) return whole;
  return `${whole}, ${Math.max(1, Math.round(minutesLeft(item)))} left`;
}

/**
 * The length of a strand on a scale that tells 2, 5, 15 and 60 minutes apart at a glance: logarithmic, the
 * same everywhere, full at an hour.
 *
 * @returns a fraction of the room there is, 0.06 to 1
 */
export function strandLength(minutes: number): number {
  return Math.min(1, Math.max(0.06, Math.log1p(minutes) / Math.log1p(60)));
}

/**
 * A short end of thread that hangs off a strand where the reader stopped, as the path of an SVG.
 *
 * @param along where it hangs, in points along the strand
 * @param axis the strand's middle, in points across it
 * @param point a place by how far along and across it is: so the strand may lie or hang
 */
export function looseEndPath(
  along: number,
  axis: number,
  point: (along: number, across: number) => { x: number; y: number },
): string {
  const from = point(along, axis);
  const bend = point(along + 7, axis + 1);
  const to = point(along + 6, axis + 10);
  return `M${from.x} ${from.y}Q${bend.x} ${bend.y} ${to.x} ${to.y}`;
}

/** A part of a strand that has been passed, and what carried it. */
export interface StrandPart {
  from: number;
  to: number;
  by: Carrier;
}

/**
 * The passed part of a strand, told apart by eyes and ears, in order and without a gap.
 *
 * @param passed the furthest fraction passed
 * @param heard the parts that went by ear
 */
export function strandParts(passed: number, heard: Spans): StrandPart[] {
  const parts: StrandPart[] = [];
  let at = 0;
  for (const { from, to } of spansWithin(heard, passed)) {
    if (from > at) parts.push({ from: at, to: from, by: 'eyes' });
    parts.push({ from, to, by: 'ears' });
    at = to;
  }
  if (at < passed) parts.push({ from: at, to: passed, by: 'eyes' });
  return parts;
}
