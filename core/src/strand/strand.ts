import { type Carrier, type Spans, spansWithin } from '../model';

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
